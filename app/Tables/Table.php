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
    public const MOST_ROWS = 100_000;

    public const MOST_COLUMNS = 400;

    private const OLD_OR_ENCRYPTED = "\xD0\xCF\x11\xE0\xA1\xB1\x1A\xE1";

    /** A spreadsheet of the size that is taken unpacks to far less; more is a trap. */
    private const MOST_BYTES = 600_000_000;

    /** @throws BadTable when it is no table that can be read */
    final public static function open(string $path): self
    {
        $head = (string) file_get_contents($path, false, null, 0, 8);

        return match (true) {
            $head === '' => throw new BadTable('The file is empty.'),
            $head === self::OLD_OR_ENCRYPTED => throw new BadTable('The file is protected with a password, or of an old kind. Save it as XLSX without a password and send it again.'),
            str_starts_with($head, "PK\x03\x04") => self::openArchive($path),
            str_starts_with($head, '%PDF') => throw new BadTable('This is a PDF, not a table. Save the figures as CSV, XLSX or ODS.'),
            default => new CsvTable($path),
        };
    }

    /**
     * @return iterable<int, list<string|NumberCell>> by line, counted from 1; rows without content are passed over
     *
     * @throws BadTable when it breaks off or grows too large
     */
    abstract public function rows(): iterable;

    /** What it is, for messages: `CSV`. */
    abstract public function kind(): string;

    private static function openArchive(string $path): self
    {
        $archive = new ZipArchive;
        if ($archive->open($path, ZipArchive::RDONLY) !== true) {
            throw new BadTable('The file is damaged: it cannot be opened.');
        }
        try {
            $bytes = 0;
            for ($index = 0; $index < $archive->numFiles; $index++) {
                $entry = $archive->statIndex($index);
                $bytes += $entry['size'] ?? 0;
                if (($entry['encryption_method'] ?? 0) !== 0) {
                    throw new BadTable('The file is protected with a password. Save it without one and send it again.');
                }
            }
            if ($bytes > self::MOST_BYTES) {
                throw new BadTable('The file unpacks to more than can be read here. Split it and send the parts.');
            }
            $manifest = $archive->getFromName('META-INF/manifest.xml');
            if ($manifest !== false && str_contains($manifest, 'encryption-data')) {
                throw new BadTable('The file is protected with a password. Save it without one and send it again.');
            }

            return match (true) {
                $archive->locateName('xl/workbook.xml') !== false => new XlsxTable($path, $archive),
                str_contains((string) $archive->getFromName('mimetype'), 'opendocument.spreadsheet') => new OdsTable($path),
                default => throw new BadTable('This is an archive, but neither XLSX nor ODS.'),
            };
        } finally {
            $archive->close();
        }
    }
}
