<?php

declare(strict_types=1);

namespace App\Logbook\Views;

use OpenApi\Attributes as OA;

#[OA\Schema(description: 'What became of a block of cells, and the rows that it touched.')]
final readonly class SavedCells
{
    /**
     * @param  list<CellOutcome>  $outcomes
     * @param  list<GridRow>  $rows
     */
    public function __construct(
        #[OA\Property(items: new OA\Items(ref: '#/components/schemas/CellOutcome'), description: 'one a cell, in the order in which they were sent')]
        public array $outcomes,
        #[OA\Property(items: new OA\Items(ref: '#/components/schemas/GridRow'))] public array $rows,
    ) {}
}
