<?php

declare(strict_types=1);

namespace App\Http\Resources;

use OpenApi\Attributes as OA;

#[OA\Schema(schema: 'Note', description: 'The reason behind a colour.')]
final readonly class NoteResource
{
    public function __construct(
        #[OA\Property(description: 'a month, 2026-08')] public string $period,
        #[OA\Property] public string $text,
        #[OA\Property(description: 'send it back to change the note')] public int $version,
        #[OA\Property] public ?string $author,
    ) {}
}
