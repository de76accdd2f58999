<?php

declare(strict_types=1);

namespace App\Tables;

use App\Models\User;
use App\Support\Formats;
use PhpOffice\PhpSpreadsheet\Cell\DataType;
use PhpOffice\PhpSpreadsheet\IOFactory;
use PhpOffice\PhpSpreadsheet\Spreadsheet;
use PhpOffice\PhpSpreadsheet\Style\Fill;
use PhpOffice\PhpSpreadsheet\Worksheet\Worksheet;

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

    /**
     * A workbook with a sheet for each, to the output; the first tells what the others are for.
     *
     * @param  list<BookSheet>  $sheets
     * @param  bool  $isEmpty  their heads alone
     */
    public static function book(array $sheets, bool $isEmpty, User $user): void
    {
        $book = new Spreadsheet;
        $first = $book->getActiveSheet()->setTitle('Read me');
        $first->setCellValue('A1', 'An organisation in one workbook')->getStyle('A1')->getFont()->setBold(true)->setSize(14);
        $first->setCellValue('A2', 'Fill in the sheets that you need and send the file back under Settings: first it is shown what would change, and nothing is kept before you say so.');
        foreach ($sheets as $at => $sheet) {
            $first->setCellValue([1, 4 + $at], $sheet->name())->setCellValue([2, 4 + $at], $sheet->explanation());
            $first->getStyle([1, 4 + $at])->getFont()->setBold(true);
            $rows = (function () use ($sheet, $isEmpty, $user): iterable {
                yield $sheet->head();
                yield from $isEmpty ? [] : $sheet->rows($user);
            })();
            self::fill($book->createSheet()->setTitle($sheet->name()), $rows, $sheet->figures(), []);
        }
        $first->getColumnDimension('A')->setWidth(16);
        $first->getColumnDimension('B')->setWidth(110);
        $first->getStyle('A1:B'.(4 + count($sheets)))->getAlignment()->setWrapText(true)->setVertical('top');
        $first->getStyle('A2')->getAlignment()->setWrapText(false);
        IOFactory::createWriter($book, 'Xlsx')->save('php://output');
        $book->disconnectWorksheets();
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
        self::fill($book->getActiveSheet(), $rows, $figures, $statuses);
        IOFactory::createWriter($book, ucfirst($format))->save('php://output');
        $book->disconnectWorksheets();
    }

    /**
     * @param  iterable<list<string>>  $rows
     * @param  list<int>  $figures
     * @param  list<int>  $statuses
     */
    private static function fill(Worksheet $sheet, iterable $rows, array $figures, array $statuses): void
    {
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
    }
}
