<?php

declare(strict_types=1);

namespace App\Logbook\Views;

use OpenApi\Attributes as OA;

#[OA\Schema(description: 'How far a unit is with a month.')]
final readonly class ClosingUnit
{
    public function __construct(
        #[OA\Property] public string $code,
        #[OA\Property] public string $name,
        #[OA\Property(description: 'how deep it lies below the unit that is looked at')] public int $depth,
        #[OA\Property(description: 'readings that should arrive')] public int $expected,
        #[OA\Property] public int $reported,
        #[OA\Property(description: 'handed in by their owners')] public int $submitted,
        #[OA\Property] public bool $closed,
        #[OA\Property(description: 'the moment, ISO 8601')] public ?string $closedAt,
        #[OA\Property] public ?string $closedBy,
    ) {}
}
