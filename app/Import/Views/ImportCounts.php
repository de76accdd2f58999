<?php

declare(strict_types=1);

namespace App\Import\Views;

use OpenApi\Attributes as OA;

#[OA\Schema(description: 'How many cells of the file are what.')]
final readonly class ImportCounts
{
    public function __construct(
        #[OA\Property] public int $new,
        #[OA\Property] public int $changed,
        #[OA\Property] public int $same,
        #[OA\Property] public int $refused,
    ) {}
}
