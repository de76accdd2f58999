<?php

declare(strict_types=1);

namespace App\Import;

use App\Tables\BadTable;
use App\Tables\NumberCell;
use App\Tables\Table;

/**
 * Finds the line of a file in which the columns are named, below titles and on any of its sheets.
 */
final readonly class HeadFinder
{
    /** So many lines are looked at from the top of a sheet. */
    private const LINES = 40;

    private const MOST_SHEETS = 50;

    /**
     * Where the columns can be understood, or seem to be named.
     *
     * @param  callable(string): bool  $isPeriod
     * @return array{string, int} the sheet ('' where the file is one table) and the line
     *
     * @throws BadTable when there is nothing in it
     */
    public function find(string $path, callable $isPeriod): array
    {
        $best = null;
        $score = -1;
        $sheets = $this->sheets($path);
        foreach ($sheets === [] ? [''] : $sheets as $sheet) {
            foreach ($this->top($path, $sheet) as $line => $row) {
                $mapping = Mapping::recognise($row, $isPeriod);
                $known = count($mapping->roles) + min(3, count($mapping->periods)) + ($mapping->problem() === '' ? 100 : 0);
                // A line of one known word is a title; the first line that is there is the best guess for want of a better one.
                if ($known > max($score, $best === null ? -1 : 1)) {
                    [$best, $score] = [[$sheet, $line], $known];
                }
            }
            if ($score >= 100) {
                break;
            }
        }

        return $best ?? throw new BadTable('The file has no rows.');
    }

    /** @return array<int, list<string|NumberCell>> by line */
    public function top(string $path, string $sheet): array
    {
        $rows = [];
        foreach (Table::open($path, $sheet, Table::SHORT)->rows() as $line => $row) {
            if ($line > self::LINES && $rows !== []) {
                break;
            }
            $rows[$line] = $row;
            if (count($rows) >= self::LINES) {
                break;
            }
        }

        return $rows;
    }

    /** @return list<string> none where the file is one table */
    public function sheets(string $path): array
    {
        return array_slice(Table::open($path, '', Table::SHORT)->sheets(), 0, self::MOST_SHEETS);
    }
}
