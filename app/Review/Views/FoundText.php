<?php

declare(strict_types=1);

namespace App\Review\Views;

use OpenApi\Attributes as OA;

#[OA\Schema(description: 'A note or an action that holds the words looked for.')]
final readonly class FoundText
{
    public function __construct(
        #[OA\Property(enum: ['note', 'action'])] public string $kind,
        #[OA\Property(description: 'code of the KPI')] public string $code,
        #[OA\Property] public string $name,
        #[OA\Property(description: 'code of the unit')] public string $unit,
        #[OA\Property(description: 'the month in which its period begins, 2026-08')] public string $month,
        #[OA\Property] public string $text,
    ) {}
}
