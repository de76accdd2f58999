<?php

declare(strict_types=1);

namespace App\Tables;

/**
 * CSV (RFC 4180) in UTF-8, with or without a byte-order mark; comma, semicolon or tab between the cells.
 */
final class CsvTable extends Table
{
    private const SAMPLE = 65_536;

    private readonly string $separator;

    public function __construct(private readonly string $path)
    {
        $sample = (string) file_get_contents($path, false, null, 0, self::SAMPLE);
        if (str_contains($sample, "\0")) {
            throw new BadTable(str_starts_with($sample, "\xFF\xFE") || str_starts_with($sample, "\xFE\xFF")
                ? 'The text is in UTF-16. Save it as "CSV UTF-8" and send it again.'
                : 'The file is neither text nor a spreadsheet.');
        }
        // A sample may end inside a character; its last few bytes say nothing.
        if (! mb_check_encoding(strlen($sample) < self::SAMPLE ? $sample : mb_strcut($sample, 0, self::SAMPLE - 4, 'UTF-8'), 'UTF-8')) {
            throw new BadTable('The text is not in UTF-8. Save it as "CSV UTF-8" and send it again.');
        }
        $line = strtok($sample, "\r\n");
        $first = preg_replace('/"[^"]*"/', '', $line === false ? '' : $line) ?? '';
        $counts = ["\t" => substr_count($first, "\t"), ';' => substr_count($first, ';'), ',' => substr_count($first, ',')];
        arsort($counts);
        $this->separator = array_key_first($counts);
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
            for ($line = 1; ($cells = fgetcsv($file, null, $this->separator, '"', '')) !== false; $line++) {
                if ($line > self::MOST_ROWS + 1) {
                    throw new BadTable('The file has more than '.number_format(self::MOST_ROWS).' rows. Split it and send the parts.');
                }
                if ($cells === [null]) {
                    continue;
                }
                $row = array_map(strval(...), array_slice($cells, 0, self::MOST_COLUMNS));
                if (! mb_check_encoding(implode('', $row), 'UTF-8')) {
                    throw new BadTable("Line {$line} is not in UTF-8. Save the file as \"CSV UTF-8\" and send it again.");
                }
                yield $line => $row;
            }
        } finally {
            fclose($file);
        }
    }

    public function kind(): string
    {
        return 'CSV';
    }
}
