<?php

declare(strict_types=1);

namespace App\Tables;

use App\Support\Formats;
use PhpOffice\PhpSpreadsheet\Cell\DataType;
use PhpOffice\PhpSpreadsheet\IOFactory;
use PhpOffice\PhpSpreadsheet\Spreadsheet;
use PhpOffice\PhpSpreadsheet\Style\Fill;

/**
 * Writes a table as a file: CSV as it goes, XLSX and ODS with real numbers.
 */
final class TableWriter
{
    public const FORMATS = ['csv', 'xlsx', 'ods'];

    /** media types, by format */
    public const TYPES = [
        'csv' => 'text/csv; charset=UTF-8',
        'xlsx' => 'application/vnd.openxmlformats-officedocument.spreadsheetml.sheet',
        'ods' => 'application/vnd.oasis.opendocument.spreadsheet',
    ];

    /** Tints of the cells that hold a status; the word in them says the same. */
    private const TINTS = ['green' => 'CFE3D6', 'amber' => 'F4E0B8', 'red' => 'F0CFC9'];

    /** A spreadsheet keeps 15 digits of a number; a longer figure goes out as text. */
    private const DIGITS = 15;

    /**
     * To the output.
     *
     * @param  iterable<list<string>>  $rows  the first one is the head; figures have a plain point
     * @param  list<int>  $figures  the columns that hold figures
     * @param  list<int>  $statuses  the columns that hold statuses, which a spreadsheet colours
     */
    public static function write(string $format, iterable $rows, array $figures, array $statuses = []): void
    {
        $format === 'csv' ? self::csv($rows) : self::spreadsheet($rows, $figures, $statuses, $format);
    }

    /** @param  iterable<list<string>>  $rows */
    private static function csv(iterable $rows): void
    {
        echo "\xEF\xBB\xBF";
        foreach ($rows as $row) {
            echo Formats::csv($row);
        }
    }

    /**
     * @param  iterable<list<string>>  $rows
     * @param  list<int>  $figures
     * @param  list<int>  $statuses
     */
    private static function spreadsheet(iterable $rows, array $figures, array $statuses, string $format): void
    {
        $book = new Spreadsheet;
        $sheet = $book->getActiveSheet();
        $isFigure = array_fill_keys($figures, true);
        $isStatus = array_fill_keys($statuses, true);
        $widths = [];
        $line = 0;
        foreach ($rows as $row) {
            $line++;
            foreach ($row as $column => $text) {
                $widths[$column] = max($widths[$column] ?? 0, mb_strlen($text));
                if ($text === '') {
                    continue;
                }
                $isNumber = $line > 1 && isset($isFigure[$column]) && preg_match('/\A-?\d+(\.\d+)?\z/', $text) === 1
                    && strlen(preg_replace('/\D/', '', $text) ?? '') <= self::DIGITS;
                $sheet->setCellValueExplicit([$column + 1, $line], $text, $isNumber ? DataType::TYPE_NUMERIC : DataType::TYPE_STRING);
                if (isset($isStatus[$column], self::TINTS[$text])) {
                    $sheet->getStyle([$column + 1, $line])->getFill()->setFillType(Fill::FILL_SOLID)->getStartColor()->setRGB(self::TINTS[$text]);
                }
            }
        }
        foreach ($widths as $column => $width) {
            $sheet->getColumnDimensionByColumn($column + 1)->setWidth(min(60, max(9, $width + 2)));
        }
        if ($widths !== []) {
            $sheet->getStyle([1, 1, max(array_keys($widths)) + 1, 1])->getFont()->setBold(true);
            $sheet->freezePane('A2');
        }
        IOFactory::createWriter($book, ucfirst($format))->save('php://output');
        $book->disconnectWorksheets();
    }
}
