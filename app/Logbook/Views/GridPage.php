<?php

declare(strict_types=1);

namespace App\Logbook\Views;

use OpenApi\Attributes as OA;

#[OA\Schema(description: 'A year of figures: KPIs down, periods across.')]
final readonly class GridPage
{
    /**
     * @param  list<GridColumn>  $columns
     * @param  list<GridRow>  $rows
     */
    public function __construct(
        #[OA\Property(description: 'label of the financial year')] public string $year,
        #[OA\Property(enum: ['actual', 'target', 'prior'])] public string $layer,
        #[OA\Property(items: new OA\Items(ref: '#/components/schemas/GridColumn'))] public array $columns,
        #[OA\Property(items: new OA\Items(ref: '#/components/schemas/GridRow'))] public array $rows,
        #[OA\Property(description: 'whether there are KPIs that are measured by the week')] public bool $hasWeeks,
    ) {}
}
