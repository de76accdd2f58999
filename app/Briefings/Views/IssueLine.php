<?php

declare(strict_types=1);

namespace App\Briefings\Views;

use Kybernet\Core\Calendar\Span;
use OpenApi\Attributes as OA;

#[OA\Schema(description: 'An issue of a briefing.')]
final readonly class IssueLine
{
    public function __construct(
        #[OA\Property] public int $number,
        #[OA\Property(description: 'the month that it is of')] public string $period,
        #[OA\Property(enum: Span::class)] public string $span,
        #[OA\Property] public string $at,
        #[OA\Property] public ?string $by,
    ) {}
}
