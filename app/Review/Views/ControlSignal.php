<?php

declare(strict_types=1);

namespace App\Review\Views;

use Kybernet\Core\Trend\Side;
use OpenApi\Attributes as OA;

#[OA\Schema(description: 'Something that chance alone seldom does.')]
final readonly class ControlSignal
{
    public function __construct(
        #[OA\Property(description: 'the period that completes it')] public string $period,
        #[OA\Property] public string $words,
        #[OA\Property(enum: Side::class)] public string $side,
    ) {}
}
