<?php

declare(strict_types=1);

namespace App\Organisation\Views;

use Kybernet\Core\Status\RollUpRule;
use OpenApi\Attributes as OA;

#[OA\Schema(schema: 'UnitTreeLine', description: 'A unit in the tree, with what hangs on it.')]
final readonly class UnitTreeLine
{
    public function __construct(
        #[OA\Property] public string $code,
        #[OA\Property] public string $name,
        #[OA\Property] public string $kind,
        #[OA\Property(description: 'code of the unit above it; null for the organisation itself')] public ?string $parent,
        #[OA\Property(description: 'in the roll-up of the unit above')] public string $weight,
        #[OA\Property(enum: RollUpRule::class)] public string $rollUp,
        #[OA\Property] public string $rollUpGreen,
        #[OA\Property] public string $rollUpOther,
        #[OA\Property(description: 'the first month in which nothing is measured there any longer, 2026-12')] public ?string $retired,
        #[OA\Property(description: '0 for the organisation itself')] public int $depth,
        #[OA\Property(description: 'measured there')] public int $kpis,
        #[OA\Property(description: 'who belong there')] public int $people,
        #[OA\Property(description: 'units directly below it')] public int $below,
    ) {}
}
