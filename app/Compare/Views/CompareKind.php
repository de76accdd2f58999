<?php

declare(strict_types=1);

namespace App\Compare\Views;

use OpenApi\Attributes as OA;

#[OA\Schema(description: 'A kind of units that can be compared.')]
final readonly class CompareKind
{
    public function __construct(
        #[OA\Property] public string $kind,
        #[OA\Property(description: 'how many of them measure something')] public int $units,
    ) {}
}
