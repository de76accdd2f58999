<?php

declare(strict_types=1);

namespace App\Tables;

use ZipArchive;

/**
 * A table in a file, read row by row, so that its size costs no memory. What it is, its content says; its name may be
 * anything.
 *
 * The library that writes spreadsheets here reads them whole; 100,000 rows would take several times the memory that a
 * request may have.
 */
abstract class Table
{
    /** While somebody waits for the answer. */
    public const SHORT = 15;

    /** While a worker reads it. */
    public const LONG = 600;

    private const MOST_PARTS = 2_000;

    private const OLD_OR_ENCRYPTED = "\xD0\xCF\x11\xE0\xA1\xB1\x1A\xE1";

    public function __construct(protected readonly Bounds $bounds) {}

    /**
     * @param  string  $sheet  its name; blank for the first one
     * @param  int  $seconds  that reading may take
     * @param  int  $mostRows  below its head
     *
     * @throws BadTable when it is no table that can be read
     */
    final public static function open(string $path, string $sheet = '', int $seconds = self::LONG, int $mostRows = Bounds::MOST_ROWS): self
    {
        $head = (string) file_get_contents($path, false, null, 0, 8);
        $bounds = new Bounds($seconds, $mostRows);

        return match (true) {
            $head === '' => throw new BadTable('The file is empty.'),
            $head === self::OLD_OR_ENCRYPTED => throw new BadTable('The file is protected with a password, or of an old kind. Save it as XLSX without a password and send it again.'),
            str_starts_with($head, "PK\x03\x04") => self::openArchive($path, $sheet, $bounds),
            str_starts_with($head, '%PDF') => throw new BadTable('This is a PDF, not a table. Save the figures as CSV, XLSX or ODS.'),
            default => new CsvTable($path, $bounds),
        };
    }

    /**
     * @return iterable<int, list<string|NumberCell>> by line, counted from 1; rows without content are passed over
     *
     * @throws BadTable when it breaks off or grows too large
     */
    abstract public function rows(): iterable;

    /** @return list<string> the names of its sheets; none where it is one table */
    abstract public function sheets(): array;

    private static function openArchive(string $path, string $sheet, Bounds $bounds): self
    {
        $archive = new ZipArchive;
        if ($archive->open($path, ZipArchive::RDONLY) !== true) {
            throw new BadTable('The file is damaged: it cannot be opened.');
        }
        try {
            if ($archive->numFiles > self::MOST_PARTS) {
                throw new BadTable('The file has more parts than a spreadsheet has. Save it anew and send it again.');
            }
            for ($index = 0; $index < $archive->numFiles; $index++) {
                if (($archive->statIndex($index)['encryption_method'] ?? 0) !== 0) {
                    throw new BadTable('The file is protected with a password. Save it without one and send it again.');
                }
            }
            if (str_contains((string) Bounds::part($archive, 'META-INF/manifest.xml'), 'encryption-data')) {
                throw new BadTable('The file is protected with a password. Save it without one and send it again.');
            }

            return match (true) {
                $archive->locateName('xl/workbook.xml') !== false => new XlsxTable($path, $archive, $sheet, $bounds),
                str_contains((string) Bounds::part($archive, 'mimetype'), 'opendocument.spreadsheet') => new OdsTable($path, $sheet, $bounds),
                default => throw new BadTable('This is an archive, but neither XLSX nor ODS.'),
            };
        } finally {
            $archive->close();
        }
    }
}
