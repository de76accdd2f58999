<?php

declare(strict_types=1);

namespace App\Review\Views;

use OpenApi\Attributes as OA;

#[OA\Schema(description: 'A rule set in the history of a KPI.')]
final readonly class RuleLine
{
    public function __construct(
        #[OA\Property(description: 'the first month that it judges, 2026-04')] public string $from,
        #[OA\Property(description: 'of this unit alone')] public bool $own,
        #[OA\Property(description: 'what it asks for')] public string $words,
    ) {}
}
