<?php

declare(strict_types=1);

namespace App\Compare\Views;

use OpenApi\Attributes as OA;

#[OA\Schema(description: 'How like units have ranked on one KPI over months.')]
final readonly class RanksOverTime
{
    /**
     * @param  list<string>  $months
     * @param  list<RankLine>  $lines
     */
    public function __construct(
        #[OA\Property(description: 'code of the KPI')] public string $kpi,
        #[OA\Property(items: new OA\Items(type: 'string'), description: 'the earliest first')] public array $months,
        #[OA\Property(items: new OA\Items(ref: '#/components/schemas/RankLine'))] public array $lines,
    ) {}
}
