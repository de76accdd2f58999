<?php

declare(strict_types=1);

namespace App\Views;

use OpenApi\Attributes as OA;

#[OA\Schema(description: 'One reason why a KPI deserves attention.')]
final readonly class ExceptionReason
{
    public function __construct(
        #[OA\Property(enum: ['red', 'amber', 'worsened', 'persistent', 'projected-miss', 'signal', 'behind-prior-year', 'missing', 'unexplained'])]
        public string $code,
        #[OA\Property] public string $text,
        #[OA\Property(description: 'before the weight of the KPI')] public int $points,
    ) {}
}
