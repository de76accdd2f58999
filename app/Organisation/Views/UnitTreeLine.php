<?php

declare(strict_types=1);

namespace App\Organisation\Views;

use OpenApi\Attributes as OA;

#[OA\Schema(schema: 'UnitTreeLine', description: 'A unit in the tree, with what hangs on it.')]
final readonly class UnitTreeLine
{
    public function __construct(
        #[OA\Property] public string $code,
        #[OA\Property] public string $name,
        #[OA\Property] public string $kind,
        #[OA\Property(description: 'code of the unit above it; null for the organisation itself')] public ?string $parent,
        #[OA\Property(description: '0 for the organisation itself')] public int $depth,
        #[OA\Property(description: 'measured there')] public int $kpis,
        #[OA\Property(description: 'who belong there')] public int $people,
        #[OA\Property(description: 'units directly below it')] public int $below,
    ) {}
}
