<?php

declare(strict_types=1);

namespace App\Views;

use OpenApi\Attributes as OA;
use stdClass;

#[OA\Schema(schema: 'Note', description: 'The reason behind a colour, what is expected, and what is being done.')]
final readonly class NoteView
{
    private function __construct(
        #[OA\Property(description: 'in the frequency of the KPI: 2026-08, 2026-W34, FY2026-Q2')] public string $period,
        #[OA\Property(description: 'the reason')] public string $text,
        #[OA\Property(description: 'when it will be back, and where it is heading')] public string $outlook,
        #[OA\Property(description: 'what is being done')] public string $doing,
        #[OA\Property(description: 'send it back to change the note')] public int $version,
        #[OA\Property] public ?string $author,
    ) {}

    /** @param  stdClass  $row  of notes, with the name of its author */
    public static function of(stdClass $row, string $period): self
    {
        return new self($period, $row->text, $row->outlook, $row->doing, $row->version, $row->author);
    }
}
