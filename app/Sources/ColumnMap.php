<?php

declare(strict_types=1);

namespace App\Sources;

use App\Tables\NumberCell;
use Illuminate\Support\Str;

/**
 * Which column of a file holds which field of a record, and how its dates and numbers are written: by the names that
 * stand above the columns, so that the next file of the same kind is understood by itself.
 *
 * @phpstan-type Kept array<string, array{field: string, form: string}>
 */
final readonly class ColumnMap
{
    /** @param  array<int, array{field: string, form: string}>  $columns  by position */
    private function __construct(public array $columns) {}

    /**
     * @param  list<string|NumberCell>  $head  the line above the records
     * @param  Kept  $kept  by the name of the column
     * @param  list<string>  $fields  a column that is called like one of them holds it, where nothing else is kept of it
     */
    public static function of(array $head, array $kept, array $fields): self
    {
        $columns = [];
        $plain = [];
        foreach ($fields as $field) {
            $plain[self::plain($field)] = $field;
        }
        $taken = [];
        foreach ($head as $at => $cell) {
            $name = self::name($cell);
            $found = $kept[$name] ?? (isset($plain[self::plain($name)]) ? ['field' => $plain[self::plain($name)], 'form' => ''] : null);
            if ($found !== null && in_array($found['field'], $fields, true) && ! isset($taken[$found['field']])) {
                $columns[$at] = $found;
                $taken[$found['field']] = true;
            }
        }

        return new self($columns);
    }

    /** @return list<string> */
    public function fields(): array
    {
        return array_column($this->columns, 'field');
    }

    public static function name(string|NumberCell $cell): string
    {
        return Str::squish($cell instanceof NumberCell ? $cell->text : $cell);
    }

    /** The name of a field for a column: letters, digits and `_`. */
    public static function fieldName(string $column): string
    {
        $name = Str::slug(Str::ascii($column), '_');

        return preg_match('/\A[a-z]/', $name) === 1 ? mb_substr($name, 0, 60) : mb_substr(rtrim("field_{$name}", '_'), 0, 60);
    }

    private static function plain(string $name): string
    {
        return preg_replace('/[^a-z0-9]+/', '', mb_strtolower(Str::ascii($name))) ?? $name;
    }
}
