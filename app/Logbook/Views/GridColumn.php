<?php

declare(strict_types=1);

namespace App\Logbook\Views;

use OpenApi\Attributes as OA;

#[OA\Schema(description: 'A month or a week of the year grid.')]
final readonly class GridColumn
{
    public function __construct(
        #[OA\Property(description: 'the period that its cells are of: 2026-08, 2026-W34')] public string $period,
        #[OA\Property(description: 'the month in which it ends')] public string $month,
        #[OA\Property(description: 'closed for the unit that is looked at')] public bool $closed,
    ) {}
}
