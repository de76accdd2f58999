<?php

declare(strict_types=1);

namespace App\Review\Views;

use App\Views\StatusSchema;
use OpenApi\Attributes as OA;

#[OA\Schema(description: 'A week of the month that is looked at.')]
final readonly class RibbonWeek
{
    public function __construct(
        #[OA\Property(description: 'a week of ISO 8601, 2026-W34')] public string $week,
        #[OA\Property(description: 'readings that were due')] public int $expected,
        #[OA\Property(description: 'readings that are in')] public int $reported,
        #[OA\Property(ref: StatusSchema::REF)] public string $status,
    ) {}
}
