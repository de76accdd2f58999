<?php

declare(strict_types=1);

namespace App\Logbook\Views;

use OpenApi\Attributes as OA;

#[OA\Schema(schema: 'TargetPlan', description: 'Targets as they would be, beside what is there.')]
final readonly class TargetPlanPage
{
    /** @param  list<TargetPlanRow>  $rows */
    public function __construct(
        #[OA\Property(description: 'label of the financial year')] public string $year,
        #[OA\Property(items: new OA\Items(ref: '#/components/schemas/TargetPlanRow'))] public array $rows,
    ) {}
}
