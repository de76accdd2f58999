<?php

declare(strict_types=1);

namespace Kybernet\Core\Workbook;

/**
 * The reason behind a colour, what is expected, and what is being done.
 */
final readonly class NoteEntry
{
    /**
     * @param  string  $text  the reason
     * @param  string|null  $by  e-mail address of who wrote it
     * @param  string  $outlook  when it will be back, and where it is heading
     * @param  string  $doing  what is being done
     */
    public function __construct(public string $text, public ?string $by, public string $outlook = '', public string $doing = '') {}
}
