<?php

declare(strict_types=1);

namespace App\Support;

use Kybernet\Core\Workbook\BadWorkbook;
use Kybernet\Core\Workbook\Problem;
use Kybernet\Core\Workbook\Workbook;
use Kybernet\Core\Workbook\WorkbookReader;

/**
 * The open formats as files: their schemas, workbooks, and tables.
 */
final class Formats
{
    public const SCHEMAS = ['workbook', 'assessment'];

    /** The text of a JSON Schema. */
    public static function schema(string $format): string
    {
        return (string) file_get_contents(base_path("docs/formats/{$format}.schema.json"));
    }

    /** @throws BadWorkbook when it cannot be read, or is not in order */
    public function readWorkbook(string $file): Workbook
    {
        $path = self::path($file);
        $text = is_file($path) && is_readable($path) ? file_get_contents($path) : false;
        if ($text === false) {
            throw new BadWorkbook([new Problem('/', 'unreadable', "The file '{$file}' cannot be read.")]);
        }

        return self::reader()->read($text);
    }

    public static function reader(): WorkbookReader
    {
        $schema = json_decode(self::schema('workbook'), false, flags: JSON_THROW_ON_ERROR);

        return new WorkbookReader(is_object($schema) ? $schema : throw new \LogicException('The schema of a workbook is an object.'));
    }

    /** A file as the caller of bin/kybernet names it, seen from the folder they stand in. */
    public static function path(string $file): string
    {
        $caller = getenv('KYBERNET_CALLER');

        return str_starts_with($file, '/') ? $file : ($caller === false ? (string) getcwd() : $caller)."/{$file}";
    }

    /**
     * A row of a table: RFC 4180. What a spreadsheet would take for a formula is marked as text; figures stay figures.
     *
     * @param  list<string>  $cells
     */
    public static function csv(array $cells): string
    {
        return implode(',', array_map(function (string $cell): string {
            $cell = preg_match('/\A[=+\-@]/', $cell) === 1 && preg_match('/\A-?\d+(\.\d+)?\z/', $cell) !== 1 ? "'{$cell}" : $cell;

            return preg_match('/[",\r\n]/', $cell) === 1 ? '"'.str_replace('"', '""', $cell).'"' : $cell;
        }, $cells))."\r\n";
    }
}
