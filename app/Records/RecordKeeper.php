<?php

declare(strict_types=1);

namespace App\Records;

use Illuminate\Database\Connection;
use Illuminate\Support\Facades\DB;
use Kybernet\Core\Records\Day;
use Kybernet\Core\Records\Expression;
use Kybernet\Core\Records\FieldType;
use Kybernet\Core\Records\Instant;
use Kybernet\Core\Workbook\RecordSetEntry;

/**
 * Takes record sets of a workbook in, and gives records out as a workbook has them.
 */
final readonly class RecordKeeper
{
    private const CHUNK = 20_000;

    public function __construct(private Connection $database, private RecordSets $sets) {}

    /**
     * Puts a set of a workbook in the place of the one of the same code. What a workbook does not tell, and what is
     * sensitive of records that are the same, stays. To be called in a transaction.
     *
     * @param  int  $unit  whose records they are, where that is not known
     * @return int its identity
     */
    public function take(RecordSetEntry $entry, int $unit): int
    {
        $there = $this->sets->byCode($entry->set->code);
        $types = array_map(fn (FieldType $type): string => $type->value, $entry->set->fields);
        $isAlike = $there !== null && $there->entry->key === $entry->key && array_map(fn (FieldType $type): string => $type->value, $there->set()->fields) === $types;
        $columns = $isAlike ? $there->table->columns : array_combine(array_keys($types), array_map(fn (int $at): string => 'c'.($at + 1), array_keys(array_values($types))));
        $row = [
            'code' => $entry->set->code, 'name' => $entry->name, 'key_field' => $entry->key, 'fields' => json_encode(self::fields($entry, $columns), JSON_THROW_ON_ERROR),
            'unit_names' => json_encode((object) $entry->set->unitNames, JSON_THROW_ON_ERROR), 'covers_from' => $entry->set->coverage->from?->key(), 'covers_to' => $entry->set->coverage->to?->key(), 'updated_at' => now(),
        ];
        if ($there === null) {
            $id = $this->database->table('record_sets')->insertGetId([...$row, 'noun' => 'records', 'unit_id' => $unit, 'mapping' => json_encode((object) array_map(fn (string $field): array => ['field' => $field, 'form' => ''], array_combine(array_keys($types), array_keys($types))), JSON_THROW_ON_ERROR), 'created_at' => now()]);
        } else {
            $id = $there->id;
            $this->database->table('record_sets')->where('id', $id)->update([...$row, 'version' => $this->database->raw('version + 1')]);
        }
        if (! $isAlike) {
            $this->database->select('SELECT kybernet_make_records(?, ?, ?)', [$id, json_encode(array_combine($columns, $types), JSON_THROW_ON_ERROR), $columns[$entry->key]]);
        }
        $this->fill($id, $entry, $columns, $types);
        $this->sets->forget();

        return $id;
    }

    /**
     * The records of a set as a workbook has them, without what is sensitive.
     *
     * @return \Generator<int, list<string|bool|null>>
     */
    public function rows(KeptSet $set): \Generator
    {
        $fields = $set->set()->fields;
        $columns = implode(', ', $set->table->columns);
        foreach ($this->database->cursor("SELECT {$columns} FROM {$set->table->name} ORDER BY {$set->table->columns[$set->entry->key]}") as $row) {
            $values = is_object($row) ? get_object_vars($row) : [];
            yield array_map(function (string $field) use ($fields, $values, $set): string|bool|null {
                $value = in_array($field, $set->sensitive(), true) ? null : $values[$set->table->columns[$field]] ?? null;

                return match (true) {
                    is_bool($value) => $value,
                    ! is_string($value) => null,
                    $fields[$field] === FieldType::Time => RecordTally::instant($value)->key(),
                    default => $value,
                };
            }, array_keys($fields));
        }
    }

    /**
     * The records as a table that a load takes back: fields in the head, without the sensitive ones.
     *
     * @return \Generator<int, list<string>>
     */
    public function table(KeptSet $set): \Generator
    {
        $shown = array_keys(array_filter(array_keys($set->set()->fields), fn (string $field): bool => ! in_array($field, $set->sensitive(), true)));
        yield array_map(fn (int $at): string => array_keys($set->set()->fields)[$at], $shown);
        foreach ($this->rows($set) as $row) {
            yield array_map(fn (int $at): string => match ($row[$at] ?? null) {
                null => '',
                true => 'yes',
                false => 'no',
                default => (string) $row[$at],
            }, $shown);
        }
    }

    /**
     * @param  array<string, string>  $columns
     * @return list<array<string, mixed>>
     */
    private static function fields(RecordSetEntry $entry, array $columns): array
    {
        $own = fn (string $name): array => [...(isset($entry->meanings[$name]) ? ['meaning' => $entry->meanings[$name]] : []), ...(in_array($name, $entry->sensitive, true) ? ['sensitive' => true] : [])];

        return [
            ...array_map(fn (string $name, FieldType $type): array => ['name' => $name, 'type' => $type->value, 'column' => $columns[$name], ...$own($name)], array_keys($entry->set->fields), $entry->set->fields),
            ...array_map(fn (string $name, Expression $expression): array => ['name' => $name, 'expression' => $expression->text, ...$own($name)], array_keys($entry->set->calculated), $entry->set->calculated),
        ];
    }

    /**
     * @param  array<string, string>  $columns
     * @param  array<string, string>  $types
     */
    private function fill(int $id, RecordSetEntry $entry, array $columns, array $types): void
    {
        $load = $this->database->table('record_loads')->insertGetId([
            'record_set_id' => $id, 'way' => 'file', 'file' => 'workbook', 'mode' => 'all', 'state' => 'applied', 'brought' => count($entry->set->records), 'progress' => count($entry->set->records), 'created_at' => now(), 'updated_at' => now(),
        ]);
        $this->database->select('SELECT kybernet_stage_records(?, ?)', [$load, json_encode(array_combine($columns, $types), JSON_THROW_ON_ERROR)]);
        foreach (array_chunk($entry->set->records, self::CHUNK) as $at => $chunk) {
            $lines = [];
            foreach ($chunk as $place => $record) {
                $lines[] = implode("\t", [(string) ($at * self::CHUNK + $place), ...array_map(fn (string $field): string => self::copied($record[$field] ?? null), array_keys($types))]);
            }
            DB::connection()->getPdo()->pgsqlCopyFromArray("records.s{$load}", $lines, "\t", '\\\\N', implode(',', ['line', ...array_values($columns)]));
        }
        $key = $columns[$entry->key];
        foreach ($entry->sensitive as $field) {
            if (isset($columns[$field]) && $field !== $entry->key) {
                $this->database->statement("UPDATE records.s{$load} AS staged SET {$columns[$field]} = there.{$columns[$field]} FROM records.r{$id} AS there WHERE there.{$key} = staged.{$key} AND staged.{$columns[$field]} IS NULL");
            }
        }
        $all = implode(', ', $columns);
        $differs = $this->database->scalar("SELECT (SELECT count(*) FROM records.s{$load}) <> (SELECT count(*) FROM records.r{$id}) OR EXISTS (SELECT {$all} FROM records.s{$load} EXCEPT SELECT {$all} FROM records.r{$id})");
        if ($differs === true) {
            $this->database->statement("DELETE FROM records.w{$id}");
            $this->database->statement("DELETE FROM records.r{$id}");
            $added = $this->database->affectingStatement("INSERT INTO records.r{$id} (load, {$all}) SELECT {$load}, {$all} FROM records.s{$load} ORDER BY line");
            // What was before cannot be brought back any more.
            $this->database->table('record_loads')->where('record_set_id', $id)->update(['applied_at' => null]);
            $this->database->table('record_loads')->where('id', $load)->update(['added' => $added]);
            $this->database->table('record_sets')->where('id', $id)->update(['records' => $added]);
        } else {
            $this->database->table('record_loads')->where('id', $load)->delete();
        }
        $this->database->select('SELECT kybernet_unstage_records(?)', [$load]);
    }

    private static function copied(string|Day|Instant|bool|null $value): string
    {
        return match (true) {
            $value === null => '\N',
            is_bool($value) => $value ? 'true' : 'false',
            is_string($value) => addcslashes($value, "\\\t\n\r"),
            default => $value->key(),
        };
    }
}
