<?php

declare(strict_types=1);

namespace App\Import;

use App\Tables\NumberCell;

/**
 * One cell of a file that says something about a KPI.
 */
final readonly class FileCell
{
    /**
     * @param  int  $line  of the file
     * @param  string  $place  the letters of its column
     * @param  string  $layer  `actual`, `target`, `low`, `high` or `note`
     * @param  string|null  $note  of the same row, which a colour needs
     */
    public function __construct(
        public int $line,
        public string $place,
        public string $kpi,
        public string $unit,
        public string $period,
        public string $layer,
        public string|NumberCell $value,
        public string|NumberCell|null $upper = null,
        public ?string $note = null,
    ) {}

    public function typed(): string
    {
        $text = fn (string|NumberCell $cell): string => $cell instanceof NumberCell ? $cell->text : $cell;

        return mb_substr($text($this->value).($this->upper === null ? '' : " \u{2013} ".$text($this->upper)), 0, 200);
    }
}
