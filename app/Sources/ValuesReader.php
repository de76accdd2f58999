<?php

declare(strict_types=1);

namespace App\Sources;

use App\Figures\CountedRows;
use App\Records\RecordSets;
use App\Records\RecordTally;
use App\Sources\Views\CalculatedValues;
use App\Tables\BadTable;
use Carbon\CarbonImmutable;
use Illuminate\Database\Connection;
use InvalidArgumentException;
use Kybernet\Core\Measure\Exact;
use Kybernet\Core\Measure\FormulaProblem;
use Kybernet\Core\Records\At;
use Kybernet\Core\Records\Day;
use Kybernet\Core\Records\Expression;
use Kybernet\Core\Records\FieldType;
use Kybernet\Core\Records\RecordSet;

/**
 * What calculated fields give of the first records, while they are being written.
 *
 * @phpstan-import-type Value from RecordSet
 */
final readonly class ValuesReader
{
    private const RECORDS = 5;

    private const DECIMALS = 4;

    public function __construct(private Connection $database, private RecordSets $sets, private CountedRows $rows) {}

    /**
     * @param  list<array{name: string, was: string|null, type: string|null, expression: string|null, column: string|null, form: string}>  $fields
     * @param  string|null  $path  of a file that is not brought in yet
     * @param  string|null  $code  of a set that is there
     * @return list<CalculatedValues>
     */
    public function read(array $fields, ?string $path, ?string $code): array
    {
        $types = [];
        foreach ($fields as $field) {
            $type = FieldType::tryFrom($field['type'] ?? '');
            if ($type !== null) {
                $types[$field['name']] = $type;
            }
        }
        $records = $path !== null ? $this->ofFile($fields, $types, $path) : $this->ofSet($fields, $types, $code ?? '');
        $at = new At($this->rows->zone(), Day::parse(CarbonImmutable::now('UTC')->toDateString()));
        $calculated = $values = [];
        foreach ($fields as $field) {
            if ($field['type'] !== null || ($field['expression'] ?? '') === '' || $field['name'] === '') {
                continue;
            }
            try {
                $expression = Expression::parse((string) $field['expression'], $types, $calculated);
                $calculated[$field['name']] = $expression;
                $values[] = new CalculatedValues($field['name'], array_map(fn (array $record): ?string => self::text($expression->value($record, $at)), $records), '');
            } catch (FormulaProblem $problem) {
                $values[] = new CalculatedValues($field['name'], [], $problem->getMessage());
            }
        }

        return $values;
    }

    private static function text(?Exact $value): ?string
    {
        return $value === null ? null : (string) $value->rounded(self::DECIMALS)->stripTrailingZeros();
    }

    /**
     * @param  list<array{name: string, was: string|null, type: string|null, expression: string|null, column: string|null, form: string}>  $fields
     * @param  array<string, FieldType>  $types
     * @return list<array<string, Value>>
     */
    private function ofFile(array $fields, array $types, string $path): array
    {
        $cell = new RecordCell($this->rows->zone());
        try {
            [$head, $rows] = (new RecordFile($path))->top(self::RECORDS);
        } catch (BadTable) {
            return [];
        }
        $places = array_flip(array_map(ColumnMap::name(...), $head));
        $records = [];
        foreach ($rows as $row) {
            $record = [];
            foreach ($fields as $field) {
                $type = $types[$field['name']] ?? null;
                $at = $places[$field['column'] ?? $field['name']] ?? null;
                try {
                    $text = $type === null || $at === null ? null : $cell->read($type, $field['form'], $row[$at] ?? '');
                    $record[$field['name']] = $type === null || $text === null ? null : RecordSet::value($type, $type === FieldType::YesNo ? $text === 'true' : $text);
                } catch (InvalidArgumentException) {
                    $record[$field['name']] = null;
                }
            }
            $records[] = $record;
        }

        return $records;
    }

    /**
     * @param  list<array{name: string, was: string|null, type: string|null, expression: string|null, column: string|null, form: string}>  $fields
     * @param  array<string, FieldType>  $types
     * @return list<array<string, Value>>
     */
    private function ofSet(array $fields, array $types, string $code): array
    {
        $set = $this->sets->byCode($code);
        $records = [];
        foreach ($set === null ? [] : $this->database->select("SELECT * FROM {$set->table->name} LIMIT ".self::RECORDS) as $row) {
            $values = is_object($row) ? get_object_vars($row) : [];
            $record = [];
            foreach ($fields as $field) {
                $value = $values[$set->table->columns[$field['was'] ?? ''] ?? ''] ?? null;
                $record[$field['name']] = match (true) {
                    ! isset($types[$field['name']]) || $value === null => null,
                    is_bool($value) => $value,
                    ! is_string($value) => null,
                    $types[$field['name']] === FieldType::Date => Day::parse($value),
                    $types[$field['name']] === FieldType::Time => RecordTally::instant($value),
                    default => $value,
                };
            }
            $records[] = $record;
        }

        return $records;
    }
}
