<?php

declare(strict_types=1);

namespace App\Http\Resources;

use OpenApi\Attributes as OA;

#[OA\Schema(description: 'A KPI in the list of the register.')]
final readonly class RegisterLine
{
    public function __construct(
        #[OA\Property] public string $code,
        #[OA\Property] public string $name,
        #[OA\Property] public string $measure,
        #[OA\Property(description: 'code of the department')] public string $department,
        #[OA\Property] public ?string $theme,
        #[OA\Property(enum: ['organisational', 'departmental', 'operational'])] public string $level,
        #[OA\Property(enum: ['entered', 'formula', 'judged'])] public string $kind,
        #[OA\Property(enum: ['higher', 'lower', 'band', 'none'])] public string $polarity,
        #[OA\Property(enum: ['sum', 'mean', 'latest', 'maximum', 'minimum', 'recompute'])] public string $accumulation,
        #[OA\Property(description: 'in how many units it is measured')] public int $units,
        #[OA\Property] public ?string $owner,
        #[OA\Property(description: 'it is to be judged, but no limits say how')] public bool $lacksLimits,
    ) {}
}
