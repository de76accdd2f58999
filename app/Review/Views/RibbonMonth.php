<?php

declare(strict_types=1);

namespace App\Review\Views;

use App\Views\StatusSchema;
use OpenApi\Attributes as OA;

#[OA\Schema(description: 'A month of the year ribbon.')]
final readonly class RibbonMonth
{
    public function __construct(
        #[OA\Property(description: 'a month, 2026-08')] public string $period,
        #[OA\Property(description: 'readings that should arrive')] public int $expected,
        #[OA\Property(description: 'readings that have arrived')] public int $reported,
        #[OA\Property(ref: StatusSchema::REF, description: 'the roll-up of the unit')] public string $status,
        #[OA\Property(description: 'nothing in it can change until somebody reopens it')] public bool $closed,
    ) {}
}
