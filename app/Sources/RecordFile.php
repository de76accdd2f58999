<?php

declare(strict_types=1);

namespace App\Sources;

use App\Tables\BadTable;
use App\Tables\NumberCell;
use App\Tables\Table;

/**
 * A file of records: a line that names the columns, and the records below it.
 */
final readonly class RecordFile
{
    public const MOST_RECORDS = 2_000_000;

    /** While a worker reads it. */
    private const SECONDS = 3_600;

    public function __construct(private string $path, private string $sheet = '') {}

    /**
     * @return \Generator<int, list<string|NumberCell>> by line; the first one is the head
     *
     * @throws BadTable
     */
    public function rows(int $seconds = self::SECONDS): \Generator
    {
        $isHead = true;
        foreach (JsonTable::isJson($this->path) ? (new JsonTable($this->path))->rows() : Table::open($this->path, $this->sheet, $seconds, self::MOST_RECORDS)->rows() as $line => $row) {
            // A title above the table stands alone in its line.
            if ($isHead && count(array_filter($row, fn (string|NumberCell $cell): bool => ColumnMap::name($cell) !== '')) < 2) {
                continue;
            }
            $isHead = false;
            yield $line => $row;
        }
    }

    /** @return array{list<string|NumberCell>, array<int, list<string|NumberCell>>} the head, and the first records by line */
    public function top(int $most): array
    {
        $head = null;
        $rows = [];
        foreach ($this->rows(Table::SHORT) as $line => $row) {
            if ($head === null) {
                $head = $row;
            } else {
                $rows[$line] = $row;
            }
            if (count($rows) >= $most) {
                break;
            }
        }

        return [$head ?? throw new BadTable('The file has no line that names its columns.'), $rows];
    }
}
