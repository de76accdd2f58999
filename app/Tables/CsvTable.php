<?php

declare(strict_types=1);

namespace App\Tables;

/**
 * CSV (RFC 4180); comma, semicolon or tab between the cells. In UTF-8, with or without a byte-order mark, or else in
 * Windows-1252, of which Latin-1 is a part.
 */
final class CsvTable extends Table
{
    private const SAMPLE = 65_536;

    /** Bytes that stand for nothing in Windows-1252. */
    private const NOT_WINDOWS = "\x81\x8D\x8F\x90\x9D";

    private readonly string $separator;

    private readonly bool $isUtf8;

    public function __construct(private readonly string $path, Bounds $bounds)
    {
        parent::__construct($bounds);
        $sample = (string) file_get_contents($path, false, null, 0, self::SAMPLE);
        if (str_contains($sample, "\0")) {
            throw new BadTable(str_starts_with($sample, "\xFF\xFE") || str_starts_with($sample, "\xFE\xFF")
                ? 'The text is in UTF-16. Save it as "CSV UTF-8" and send it again.'
                : 'The file is neither text nor a spreadsheet.');
        }
        $this->isUtf8 = self::isUtf8($path);
        $line = strtok($sample, "\r\n");
        $first = preg_replace('/"[^"]*"/', '', $line === false ? '' : $line) ?? '';
        $counts = ["\t" => substr_count($first, "\t"), ';' => substr_count($first, ';'), ',' => substr_count($first, ',')];
        // A title above the table has none of them: the first lines are asked together then.
        if (max($counts) === 0) {
            $counts = ["\t" => substr_count($sample, "\t"), ';' => substr_count($sample, ';'), ',' => substr_count($sample, ',')];
        }
        arsort($counts);
        $this->separator = array_key_first($counts);
    }

    /**
     * Looked at piece by piece, so that its size costs no memory.
     *
     * @throws BadTable when it is in neither of the two ways of writing
     */
    private static function isUtf8(string $path): bool
    {
        $file = fopen($path, 'rb');
        if ($file === false) {
            throw new BadTable('The file cannot be opened.');
        }
        $isUtf8 = $isWindows = true;
        $rest = '';
        while (($isUtf8 || $isWindows) && ! feof($file)) {
            $piece = (string) fread($file, self::SAMPLE * 16);
            $isWindows = $isWindows && strcspn($piece, self::NOT_WINDOWS) === strlen($piece);
            $text = $rest.$piece;
            // A character of several bytes may go on in the next piece.
            $whole = feof($file) ? strlen($text) : max(0, strlen($text) - 4);
            while ($whole < strlen($text) && (ord($text[$whole]) & 0xC0) === 0x80) {
                $whole++;
            }
            $isUtf8 = $isUtf8 && mb_check_encoding(substr($text, 0, $whole), 'UTF-8');
            $rest = substr($text, $whole);
        }
        fclose($file);

        return $isUtf8 || ($isWindows ? false : throw new BadTable('The text is neither in UTF-8 nor in Windows-1252. Save it as "CSV UTF-8" and send it again.'));
    }

    public function rows(): iterable
    {
        $file = fopen($this->path, 'rb');
        if ($file === false) {
            throw new BadTable('The file cannot be opened.');
        }
        try {
            if (fread($file, 3) !== "\xEF\xBB\xBF") {
                rewind($file);
            }
            $line = 1;
            while (($record = $this->record($file, $line)) !== null) {
                $this->bounds->row();
                $at = $line;
                $line += max(1, substr_count(rtrim($record, "\r\n"), "\n") + 1);
                $cells = rtrim($record, "\r\n") === '' ? [] : $this->cells($record, $at);
                if ($cells !== []) {
                    yield $at => $cells;
                }
            }
        } finally {
            fclose($file);
        }
    }

    public function sheets(): array
    {
        return [];
    }

    /**
     * A line, or several where a quoted cell goes on over its end.
     *
     * @param  resource  $file
     */
    private function record($file, int $line): ?string
    {
        $record = '';
        $isQuoted = false;
        do {
            $part = fgets($file, max(1, Bounds::MOST_LINE_BYTES + 2 - strlen($record)));
            if ($part === false) {
                return $record === '' ? null : $record;
            }
            $record .= $part;
            $isQuoted = $isQuoted !== (substr_count($part, '"') % 2 === 1);
            if (strlen($record) > Bounds::MOST_LINE_BYTES) {
                throw new BadTable("Line {$line} is longer than a megabyte. A quotation mark that is never closed does that too.");
            }
        } while ($isQuoted);

        return $record;
    }

    /** @return list<string> */
    private function cells(string $record, int $line): array
    {
        $text = $this->isUtf8 ? $record : mb_convert_encoding($record, 'UTF-8', 'Windows-1252');
        // A separator inside a quoted cell is none, but thousands of them are no table.
        Bounds::column($line, (int) (substr_count($text, $this->separator) / 50));
        $cells = array_map(strval(...), str_getcsv(rtrim($text, "\r\n"), $this->separator, '"', ''));
        while (count($cells) > Bounds::MOST_COLUMNS && end($cells) === '') {
            array_pop($cells);
        }
        Bounds::column($line, count($cells));
        // A line that is shorter than a cell may be has none that is longer.
        foreach (strlen($text) > Bounds::MOST_CELL_BYTES ? $cells : [] as $cell) {
            Bounds::cell(strlen($cell));
        }

        return $cells;
    }
}
