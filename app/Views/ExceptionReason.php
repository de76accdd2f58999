<?php

declare(strict_types=1);

namespace App\Views;

use Kybernet\Core\Attention\ReasonCode;
use OpenApi\Attributes as OA;

#[OA\Schema(description: 'One reason why a KPI deserves attention.')]
final readonly class ExceptionReason
{
    public function __construct(
        #[OA\Property(enum: ReasonCode::class)]
        public string $code,
        #[OA\Property] public string $text,
        #[OA\Property(description: 'before the weight of the KPI')] public int $points,
    ) {}
}
