<?php

declare(strict_types=1);

namespace App\Briefings\Views;

use OpenApi\Attributes as OA;

#[OA\Schema(schema: 'ReadingLink', description: 'A link with which a briefing is read without an account.')]
final readonly class LinkLine
{
    public function __construct(
        #[OA\Property] public int $id,
        #[OA\Property(description: 'for whom it is')] public string $name,
        #[OA\Property(description: 'the last day on which it opens')] public string $until,
        #[OA\Property(description: 'units are called by letters')] public bool $masked,
        #[OA\Property] public ?string $by,
        #[OA\Property(description: 'how often it was opened')] public int $opened,
        #[OA\Property] public ?string $openedAt,
        #[OA\Property(enum: ['good', 'over', 'ended'])] public string $state,
    ) {}
}
