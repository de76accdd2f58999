<?php

declare(strict_types=1);

namespace App\Sources;

use App\Tables\BadTable;
use App\Tables\Bounds;
use App\Tables\NumberCell;
use JsonException;

/**
 * Records as JSON: an object a line, or one array of objects. The columns are the members that come first in any.
 */
final readonly class JsonTable
{
    /** Of one array, which is read as a whole. */
    private const MOST_BYTES = 64_000_000;

    /** So many objects are looked at for the names of their members. */
    private const SAMPLE = 200;

    public function __construct(private string $path) {}

    public static function isJson(string $path): bool
    {
        return self::looksLikeJson((string) file_get_contents($path, false, null, 0, 512));
    }

    public static function looksLikeJson(string $text): bool
    {
        return preg_match('/\A(?:\xEF\xBB\xBF)?\s*[\[{]/', $text) === 1;
    }

    /** One array as an object a line; numbers stay as they are written. */
    public static function lines(string $text): string
    {
        $lines = '';
        foreach (self::decode($text, 1) as $object) {
            $lines .= preg_replace('/"\\\\u0001(-?\d[\d.eE+-]*)"/', '$1', json_encode($object, JSON_THROW_ON_ERROR | JSON_UNESCAPED_SLASHES))."\n";
        }

        return $lines;
    }

    /**
     * @return \Generator<int, list<string|NumberCell>>
     *
     * @throws BadTable
     */
    public function rows(): \Generator
    {
        $names = [];
        foreach ($this->objects() as $at => $object) {
            $names += array_fill_keys(array_keys($object), true);
            if ($at >= self::SAMPLE) {
                break;
            }
        }
        $names = array_map(strval(...), array_keys($names));
        Bounds::column(1, count($names));
        yield 0 => $names;
        foreach ($this->objects() as $at => $object) {
            yield $at => array_map(fn (string $name): string|NumberCell => self::cell($object[$name] ?? null), $names);
        }
    }

    /** @return \Generator<int, array<array-key, mixed>> by line, from 1 */
    private function objects(): \Generator
    {
        $file = fopen($this->path, 'rb');
        if ($file === false) {
            throw new BadTable('The file cannot be opened.');
        }
        try {
            $first = ltrim((string) file_get_contents($this->path, false, null, 0, 512), "\xEF\xBB\xBF \t\r\n");
            if (str_starts_with($first, '[')) {
                if ((int) filesize($this->path) > self::MOST_BYTES) {
                    throw new BadTable('One JSON array is taken up to 64 MB. Send an object a line instead.');
                }
                $all = self::decode((string) stream_get_contents($file), 1);
                foreach (array_values($all) as $at => $object) {
                    yield $at + 1 => is_array($object) ? $object : throw new BadTable('Item '.($at + 1).' is no object.');
                }

                return;
            }
            $line = 0;
            while (($text = fgets($file, Bounds::MOST_LINE_BYTES + 2)) !== false) {
                $line++;
                if (strlen($text) > Bounds::MOST_LINE_BYTES) {
                    throw new BadTable("Line {$line} is longer than a megabyte.");
                }
                if (trim($text) !== '') {
                    yield $line => self::decode($text, $line);
                }
            }
        } finally {
            fclose($file);
        }
    }

    /** @return array<array-key, mixed> */
    private static function decode(string $text, int $line): array
    {
        try {
            // As texts, so that no number becomes a float on the way: numbers are put in quotation marks outside of texts.
            $quoted = preg_replace_callback('/"(?:[^"\\\\]|\\\\.)*"|-?\d[\d.eE+-]*/', fn (array $match): string => $match[0][0] === '"' ? $match[0] : "\"\\u0001{$match[0]}\"", $text);
            $value = json_decode($quoted ?? $text, true, 16, JSON_THROW_ON_ERROR);
        } catch (JsonException) {
            throw new BadTable("Line {$line} is no JSON.");
        }

        return is_array($value) ? $value : throw new BadTable("Line {$line} is no object.");
    }

    private static function cell(mixed $value): string|NumberCell
    {
        return match (true) {
            is_bool($value) => $value ? 'true' : 'false',
            is_string($value) && str_starts_with($value, "\u{1}") => new NumberCell(substr($value, 1)),
            is_string($value) => $value,
            default => '',
        };
    }
}
