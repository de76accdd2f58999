<?php

declare(strict_types=1);

namespace App\Organisation\Views;

use OpenApi\Attributes as OA;

#[OA\Schema(description: 'How far the first steps of an organisation have come.')]
final readonly class FirstMonth
{
    public function __construct(
        #[OA\Property(description: 'ISO 4217')] public string $currency,
        #[OA\Property(description: 'IANA name')] public string $timeZone,
        #[OA\Property(description: 'below the organisation')] public int $units,
        #[OA\Property] public int $people,
        #[OA\Property] public int $kpis,
        #[OA\Property(description: 'readings of months before the running one')] public int $history,
        #[OA\Property(description: 'the latest month that was closed for the organisation or a unit, 2026-08; null where none was')] public ?string $closed,
    ) {}
}
