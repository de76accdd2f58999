<?php

declare(strict_types=1);

namespace App\Http;

use App\Models\User;
use App\Tables\BookSheet;
use App\Tables\TableWriter;
use Symfony\Component\HttpFoundation\StreamedResponse;

/** Files as answers, written while they are sent. */
final class Download
{
    /**
     * @param  string  $name  of the file, without an ending
     * @param  iterable<list<string>>  $rows  the first one is the head; figures have a plain point
     * @param  list<int>  $figures  the columns that hold figures
     * @param  list<int>  $statuses  the columns that hold statuses, which a spreadsheet colours
     */
    public static function table(string $name, string $format, iterable $rows, array $figures, array $statuses = []): StreamedResponse
    {
        return self::file(preg_replace('/[^A-Za-z0-9._-]+/', '-', $name).".{$format}", TableWriter::TYPES[$format], function () use ($format, $rows, $figures, $statuses): void {
            TableWriter::write($format, $rows, $figures, $statuses);
        });
    }

    /**
     * @param  list<BookSheet>  $sheets
     * @param  bool  $isEmpty  their heads alone
     */
    public static function book(string $name, array $sheets, bool $isEmpty, User $user): StreamedResponse
    {
        return self::file("{$name}.xlsx", TableWriter::TYPES['xlsx'], function () use ($sheets, $isEmpty, $user): void {
            TableWriter::book($sheets, $isEmpty, $user);
        });
    }

    /** @param  iterable<string>  $pieces  of the text, one after the other */
    public static function json(string $name, iterable $pieces): StreamedResponse
    {
        return self::file("{$name}.json", 'application/json', function () use ($pieces): void {
            foreach ($pieces as $piece) {
                echo $piece;
            }
        });
    }

    private static function file(string $name, string $type, callable $write): StreamedResponse
    {
        return new StreamedResponse($write, 200, [
            'Content-Type' => $type,
            'Content-Disposition' => "attachment; filename=\"{$name}\"",
            'Cache-Control' => 'no-store',
        ]);
    }
}
