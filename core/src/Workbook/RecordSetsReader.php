<?php

declare(strict_types=1);

namespace Kybernet\Core\Workbook;

use InvalidArgumentException;
use Kybernet\Core\Measure\FormulaProblem;
use Kybernet\Core\Records\Coverage;
use Kybernet\Core\Records\Day;
use Kybernet\Core\Records\Expression;
use Kybernet\Core\Records\FieldType;
use Kybernet\Core\Records\Instant;
use Kybernet\Core\Records\RecordSet;

/**
 * Reads the record sets of a workbook, each with its records.
 *
 * @phpstan-import-type Value from RecordSet
 */
final class RecordSetsReader
{
    /** @var array<string, RecordSetEntry> */
    private array $sets = [];

    /** @var array<string, string> by code in small letters */
    private array $codes = [];

    public function __construct(private readonly UnitsReader $units) {}

    public function read(Row $row): void
    {
        $code = $row->text('code');
        $same = $code === null ? null : $this->codes[strtolower($code)] ?? null;
        if ($code === null || $same !== null) {
            $row->refuse('code', 'duplicate', "The record set '{$same}' is defined already.");

            return;
        }
        $this->codes[strtolower($code)] = $code;
        $fields = $this->fields($row);
        $key = $row->text('key');
        if ($key !== null && ! isset($fields[$key])) {
            $row->refuse('key', 'unknown-field', "There is no field '{$key}' that records bring with them.");
        }
        $this->sets[$code] = new RecordSetEntry(
            $row->text('name') ?? $code,
            $key ?? '',
            new RecordSet($code, $fields, $this->calculated($row, $fields), $this->coverage($row), $this->unitNames($row), $this->records($row, $fields, $key)),
            array_filter(array_column(array_map(fn (Row $field): array => [$field->text('name') ?? '', $field->text('meaning')], $row->rows('fields')), 1, 0), is_string(...)),
            array_values(array_map(fn (Row $field): string => $field->text('name') ?? '', array_filter($row->rows('fields'), fn (Row $field): bool => $field->flag('sensitive')))),
        );
    }

    public function set(string $code): ?RecordSet
    {
        return ($this->sets[$code] ?? null)?->set;
    }

    /** @return list<RecordSetEntry> */
    public function all(): array
    {
        return array_values($this->sets);
    }

    /** @return array<string, FieldType> those that records bring with them */
    private function fields(Row $row): array
    {
        $fields = [];
        $names = [];
        foreach ($row->rows('fields') as $field) {
            $name = $field->text('name');
            if ($name === null) {
                continue;
            }
            if (isset($names[$name]) || $name === Expression::PERIOD_END) {
                $field->refuse('name', 'duplicate', $name === Expression::PERIOD_END ? "'{$name}' is the end of the period." : "There is a field '{$name}' already.");
            }
            $names[$name] = true;
            if ($field->has('type') === $field->has('expression')) {
                $field->refuse('', $field->has('type') ? 'not-allowed' : 'missing-member', 'A field has either a type or an expression.');
            }
            $type = $field->choice('type', FieldType::class);
            if ($type !== null) {
                $fields[$name] = $type;
            }
        }

        return $fields;
    }

    /**
     * @param  array<string, FieldType>  $fields
     * @return array<string, Expression> each may name those before it
     */
    private function calculated(Row $row, array $fields): array
    {
        $calculated = [];
        foreach ($row->rows('fields') as $field) {
            [$name, $text] = [$field->text('name'), $field->text('expression')];
            if ($name === null || $text === null || isset($fields[$name])) {
                continue;
            }
            try {
                $calculated[$name] = Expression::parse($text, $fields, $calculated);
            } catch (FormulaProblem $problem) {
                $field->refuse('expression', 'formula', $problem->getMessage());
            }
        }

        return $calculated;
    }

    private function coverage(Row $row): Coverage
    {
        $covers = $row->row('covers');
        if ($covers === null) {
            return new Coverage;
        }
        [$from, $to] = array_map(function (string $member) use ($covers): ?Day {
            try {
                return $covers->text($member) === null ? null : Day::parse($covers->text($member));
            } catch (InvalidArgumentException $problem) {
                $covers->refuse($member, 'malformed', $problem->getMessage());

                return null;
            }
        }, ['from', 'to']);
        if ($from !== null && $to !== null && $to->number < $from->number) {
            $covers->refuse('to', 'limits', "The last day cannot be before {$from->key()}.");
        }

        return new Coverage($from, $to);
    }

    /** @return array<string, string> codes by other names */
    private function unitNames(Row $row): array
    {
        $names = [];
        foreach ($row->row('unitNames')?->members() ?? [] as $name => $unit) {
            if (is_string($unit)) {
                if (! $this->units->knows($unit)) {
                    $row->refuse("unitNames/{$name}", 'unknown-unit', "There is no unit '{$unit}'.");
                }
                $names[RecordSet::trimmed((string) $name)] = $unit;
            }
        }

        return $names;
    }

    /**
     * @param  array<string, FieldType>  $fields
     * @return list<array<string, Value>>
     */
    private function records(Row $row, array $fields, ?string $key): array
    {
        $names = array_keys($fields);
        $records = [];
        $met = [];
        foreach ($row->list('rows') as $at => $values) {
            if (! is_array($values) || count($values) !== count($names)) {
                $row->refuse("rows/{$at}", 'wrong-type', 'A row has a value for each field that records bring with them: '.count($names).'.');

                continue;
            }
            $record = [];
            foreach (array_values($values) as $column => $value) {
                $record[$names[$column]] = $this->value($row, "rows/{$at}/{$column}", $fields[$names[$column]], $value);
            }
            $own = $key === null ? null : $record[$key] ?? null;
            $told = $own instanceof Day || $own instanceof Instant ? $own->key() : var_export($own, true);
            if ($key !== null && isset($fields[$key]) && ($own === null || isset($met[$told]))) {
                $row->refuse("rows/{$at}", $own === null ? 'missing-member' : 'duplicate', $own === null ? "The record has no '{$key}', by which it is told from others." : "Another record has the same '{$key}'.");
            }
            $met[$told] = true;
            $records[] = $record;
        }

        return $records;
    }

    private function value(Row $row, string $member, FieldType $type, mixed $given): string|Day|Instant|bool|null
    {
        try {
            return $given === null || is_string($given) || is_bool($given)
                ? RecordSet::value($type, $given)
                : throw new InvalidArgumentException('A text, true, false or null stands here.');
        } catch (InvalidArgumentException $problem) {
            $row->refuse($member, is_string($given) ? 'malformed' : 'wrong-type', $problem->getMessage());

            return null;
        }
    }
}
