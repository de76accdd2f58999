<?php

declare(strict_types=1);

namespace App\Briefings\Views;

use Kybernet\Core\Calendar\Span;
use OpenApi\Attributes as OA;

#[OA\Schema(description: 'A briefing in the list of them.')]
final readonly class BriefingLine
{
    public function __construct(
        #[OA\Property] public string $code,
        #[OA\Property] public string $name,
        #[OA\Property(description: 'code of the unit that it is for')] public string $unit,
        #[OA\Property] public string $unitName,
        #[OA\Property(enum: Span::class)] public string $span,
        #[OA\Property(enum: ['unit', 'people'])] public string $audience,
        #[OA\Property(description: 'the latest that was published')] public ?IssueLine $issue,
        #[OA\Property(description: 'its draft differs from the latest issue')] public bool $drafted,
        #[OA\Property(description: 'when the draft was kept')] public string $keptAt,
        #[OA\Property] public int $pieces,
        #[OA\Property(description: 'whether this user writes it')] public bool $mine,
        #[OA\Property] public bool $retired,
    ) {}
}
