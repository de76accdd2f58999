<?php

declare(strict_types=1);

namespace App\Register\Views;

use OpenApi\Attributes as OA;

#[OA\Schema(description: 'What a formula gives for a period.')]
final readonly class FormulaValue
{
    public function __construct(
        #[OA\Property] public string $period,
        #[OA\Property(description: 'rounded for display, a plain point; null where there is none')] public ?string $digits,
        #[OA\Property(description: 'why there is none; blank where an operand is simply missing')] public string $reason,
    ) {}
}
