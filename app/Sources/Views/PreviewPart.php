<?php

declare(strict_types=1);

namespace App\Sources\Views;

use OpenApi\Attributes as OA;

#[OA\Schema(description: 'A part of a split, and how many records it has.')]
final readonly class PreviewPart
{
    public function __construct(
        #[OA\Property(description: 'null for what is in none')] public ?string $part,
        #[OA\Property] public int $records,
    ) {}
}
