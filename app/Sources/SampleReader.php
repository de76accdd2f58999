<?php

declare(strict_types=1);

namespace App\Sources;

use App\Figures\CountedRows;
use App\Organisation\Organisation;
use App\Sources\Views\RecordSample;
use App\Sources\Views\SourceField;
use App\Tables\NumberCell;
use Carbon\CarbonImmutable;
use InvalidArgumentException;
use Kybernet\Core\Records\FieldType;

/**
 * Understands a file from which a record set is to be made: what its columns hold, which tells records apart, and which
 * names units.
 */
final readonly class SampleReader
{
    /** So many records are looked at. */
    private const SAMPLE = 2_000;

    private const EXAMPLES = 3;

    /** What a column may hold, the most particular first, and how it may be written. */
    private const GUESSES = [
        [FieldType::YesNo, ''], [FieldType::Number, ''], [FieldType::Date, ''], [FieldType::Date, 'day-first'], [FieldType::Date, 'month-first'],
        [FieldType::Time, ''], [FieldType::Time, 'day-first'], [FieldType::Time, 'month-first'], [FieldType::Number, 'comma'],
    ];

    public function __construct(private Organisation $organisation, private CountedRows $rows) {}

    /** @param  bool  $isMonthFirst  how the person writes a day, where the file does not tell */
    public function read(string $path, string $upload, string $file, bool $isMonthFirst): RecordSample
    {
        [$head, $rows] = (new RecordFile($path))->top(self::SAMPLE);
        $cell = new RecordCell($this->rows->zone());
        $units = array_fill_keys(array_map(fn ($unit): string => $unit->code, $this->organisation->units()), true);
        $fields = $taken = $days = [];
        $key = $unitField = null;
        foreach ($head as $at => $name) {
            $column = ColumnMap::name($name);
            if ($column === '') {
                continue;
            }
            $cells = array_values(array_map(fn (array $row): string|NumberCell => $row[$at] ?? '', $rows));
            [$type, $form] = $this->guess($cell, $cells, $isMonthFirst);
            $values = array_map(function (string|NumberCell $each) use ($cell, $type, $form): ?string {
                try {
                    return $cell->read($type, $form, $each);
                } catch (InvalidArgumentException) {
                    return null;
                }
            }, $cells);
            $filled = array_values(array_filter($values, is_string(...)));
            $field = ColumnMap::fieldName($column);
            for ($more = 2; isset($taken[$field]); $more++) {
                $field = ColumnMap::fieldName($column)."_{$more}";
            }
            $taken[$field] = true;
            if ($key === null && $filled !== [] && count($filled) === count($values) && count(array_flip($filled)) === count($values) && ($type === FieldType::Text || $type === FieldType::Number)) {
                $key = $field;
            }
            if ($unitField === null && $type === FieldType::Text && $filled !== [] && count(array_filter($filled, fn (string $value): bool => isset($units[$value]))) * 2 > count($filled)) {
                $unitField = $field;
            }
            if ($type === FieldType::Date || $type === FieldType::Time) {
                $days = [...$days, ...array_map(fn (string $value): string => substr($value, 0, 10), $filled)];
            }
            $fields[] = new SourceField($field, $type->value, null, '', false, $column, $form, array_slice(array_values(array_unique($filled)), 0, self::EXAMPLES));
        }
        $today = CarbonImmutable::now('UTC')->toDateString();
        $over = array_filter($days, fn (string $day): bool => $day < $today);

        return new RecordSample($upload, $file, count($rows), $fields, $key, $unitField, $days === [] ? null : min($days), $over === [] ? null : max($over));
    }

    /**
     * @param  list<string|NumberCell>  $cells
     * @return array{FieldType, string}
     */
    private function guess(RecordCell $cell, array $cells, bool $isMonthFirst): array
    {
        $filled = array_values(array_filter($cells, fn (string|NumberCell $each): bool => $each instanceof NumberCell || trim($each) !== ''));
        foreach ($filled === [] ? [] : self::GUESSES as [$type, $form]) {
            // Where a day could be written in both ways, it is as the person writes it.
            $form = $isMonthFirst && $form !== 'comma' && $form !== '' ? ($form === 'day-first' ? 'month-first' : 'day-first') : $form;
            if ($this->holds($cell, $filled, $type, $form)) {
                return [$type, $form];
            }
        }

        return [FieldType::Text, ''];
    }

    /** @param  list<string|NumberCell>  $filled */
    private function holds(RecordCell $cell, array $filled, FieldType $type, string $form): bool
    {
        foreach ($filled as $each) {
            $text = ColumnMap::name($each);
            // Ones and zeros are numbers; what begins with a zero is called by it.
            if (($type === FieldType::YesNo && preg_match('/\A[\dx]\z/', $text) === 1) || ($type === FieldType::Number && preg_match('/\A0\d/', $text) === 1)) {
                return false;
            }
            try {
                $cell->read($type, $form, $each);
            } catch (InvalidArgumentException) {
                return false;
            }
        }

        return true;
    }
}
