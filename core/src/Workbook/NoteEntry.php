<?php

declare(strict_types=1);

namespace Kybernet\Core\Workbook;

/**
 * The reason behind a colour.
 */
final readonly class NoteEntry
{
    /** @param  string|null  $by  e-mail address of who wrote it */
    public function __construct(public string $text, public ?string $by) {}
}
