<?php

declare(strict_types=1);

namespace App\Logbook\Views;

use OpenApi\Attributes as OA;

#[OA\Schema(description: 'The year of one KPI in one unit. The lists have an item a period; figures are as this user would type them.')]
final readonly class TargetPlanRow
{
    /**
     * @param  list<string>  $periods
     * @param  list<string>  $planned
     * @param  list<string>  $current
     * @param  list<string>  $prior
     * @param  list<bool>  $kept
     */
    public function __construct(
        #[OA\Property(description: 'identity of the KPI in its unit')] public int $id,
        #[OA\Property] public string $code,
        #[OA\Property] public string $name,
        #[OA\Property] public string $measure,
        #[OA\Property] public string $unit,
        #[OA\Property(items: new OA\Items(type: 'string'))] public array $periods,
        #[OA\Property(items: new OA\Items(type: 'string'))] public array $planned,
        #[OA\Property(items: new OA\Items(type: 'string'), description: 'the targets as they are')] public array $current,
        #[OA\Property(items: new OA\Items(type: 'string'), description: "last year's actuals")] public array $prior,
        #[OA\Property(items: new OA\Items(type: 'boolean'), description: 'closed, so it stays')] public array $kept,
        #[OA\Property(description: 'what the year is aimed at, as typed or as last year was')] public string $yearFigure,
        #[OA\Property(description: "last year's figure for the whole year")] public string $lastYear,
        #[OA\Property(description: 'the planned periods gathered')] public string $gathered,
        #[OA\Property(description: 'what rounding left over; blank where nothing')] public string $remainder,
        #[OA\Property(description: 'the period that holds it')] public ?string $remainderAt,
        #[OA\Property(description: 'why nothing can be planned; blank where it can')] public string $problem,
    ) {}
}
