<?php

declare(strict_types=1);

namespace App\Sources;

use App\Figures\CountedWriter;
use App\Models\RecordSet;
use App\Records\KeptSet;
use App\Records\RecordSets;
use App\Support\Conflict;
use App\Support\Trail;
use Illuminate\Database\Connection;
use Illuminate\Support\Str;
use Illuminate\Validation\ValidationException;

/**
 * Makes a record set, changes it, retires it. What is counted from it is counted again.
 */
final readonly class SaveSet
{
    public function __construct(private Connection $database, private RecordSets $sets, private SetCheck $check, private CountedWriter $writer, private Trail $trail) {}

    /** @throws ValidationException */
    public function make(WantedSet $wanted): RecordSet
    {
        $this->refuse(($this->check)($wanted, null));

        return $this->trail->within((string) Str::uuid(), '', function () use ($wanted): RecordSet {
            $fields = $this->columns($wanted, null);
            $id = $this->database->table('record_sets')->insertGetId([...$this->row($wanted, $fields), 'created_at' => now(), 'updated_at' => now()]);
            $this->makeTable($id, $fields, $wanted->key);
            $this->owners($id, $wanted->owners);
            $this->sets->forget();

            return RecordSet::query()->findOrFail($id);
        });
    }

    /**
     * @throws Conflict when it was changed since it was read
     * @throws ValidationException
     */
    public function change(RecordSet $row, WantedSet $wanted): void
    {
        $this->trail->within((string) Str::uuid(), '', function () use ($row, $wanted): void {
            $version = $this->database->table('record_sets')->where('id', $row->id)->lockForUpdate()->value('version');
            $this->sets->forget();
            $set = $this->sets->of($row->id);
            if ($version !== $wanted->version) {
                throw new Conflict('This record set was changed by somebody else, or records came in, since you opened it. Your changes are kept here, but not saved.', ['text' => $set->name, 'version' => $version, 'by' => '']);
            }
            $this->refuse([...$this->kept($set, $wanted), ...($this->check)($wanted, $set->code)]);
            $fields = $this->columns($wanted, $set);
            if ($set->records === 0) {
                $this->makeTable($set->id, $fields, $wanted->key);
            } else {
                $known = array_flip($set->table->columns);
                foreach ($fields as $field) {
                    if (isset($field['column']) && ! isset($known[$field['column']])) {
                        $this->database->select('SELECT kybernet_add_record_field(?, ?, ?)', [$set->id, $field['column'], $field['type'] ?? '']);
                    }
                }
            }
            $this->database->table('record_sets')->where('id', $set->id)->update([...$this->row($wanted, $fields), 'version' => $wanted->version + 1, 'updated_at' => now()]);
            $this->owners($set->id, $wanted->owners);
            $this->sets->forget();
            $this->countAgain($set->id);
        });
    }

    /**
     * Names of units, one step each.
     *
     * @param  array<string, string>  $names  codes by other names
     */
    public function name(RecordSet $row, array $names): void
    {
        $this->trail->within((string) Str::uuid(), '', function () use ($row, $names): void {
            $this->database->table('record_sets')->where('id', $row->id)->lockForUpdate()->value('id');
            $this->sets->forget();
            $all = array_filter([...$this->sets->of($row->id)->set()->unitNames, ...$names], fn (string $code): bool => $code !== '');
            $this->database->table('record_sets')->where('id', $row->id)->update(['unit_names' => json_encode((object) $all, JSON_THROW_ON_ERROR), 'version' => $this->database->raw('version + 1'), 'updated_at' => now()]);
            $this->sets->forget();
            $this->countAgain($row->id);
        });
    }

    /** A set that is retired takes no records any more; what is counted from it stays. */
    public function retire(RecordSet $row, bool $isRetired): void
    {
        $this->trail->within((string) Str::uuid(), '', fn (): int => $this->database->table('record_sets')->where('id', $row->id)->update(['retired_at' => $isRetired ? now() : null, 'version' => $this->database->raw('version + 1'), 'updated_at' => now()]));
        $this->sets->forget();
    }

    private function countAgain(int $set): void
    {
        $kpis = array_values(array_filter($this->database->table('kpis')->where('record_set_id', $set)->pluck('id')->all(), is_int(...)));
        if (! $this->writer->putOffLarge($kpis)) {
            ($this->writer)($kpis);
        }
    }

    /** @return array<string, string> what cannot be changed while there are records */
    private function kept(KeptSet $set, WantedSet $wanted): array
    {
        $found = [];
        if ($set->records > 0 && $wanted->key !== $set->entry->key && ! in_array(['name' => $wanted->key, 'was' => $set->entry->key], array_map(fn (array $field): array => ['name' => $field['name'], 'was' => $field['was']], $wanted->fields), true)) {
            $found['key'] = 'Its records are told apart by this; it can change while there are none.';
        }
        foreach ($wanted->fields as $at => $field) {
            $was = $field['was'] === null ? null : $set->set()->fields[$field['was']] ?? null;
            if ($set->records > 0 && $was !== null && $field['type'] !== $was->value) {
                $found["fields.{$at}.type"] = "It is {$was->value} while there are records. Add a field of the other kind, or take back the loads first.";
            }
        }

        return $found;
    }

    /**
     * @return list<array{name: string, type?: string, column?: string, expression?: string, meaning?: string, sensitive?: bool}>
     */
    private function columns(WantedSet $wanted, ?KeptSet $set): array
    {
        // A column that a field has left is not used again: it still holds what was there.
        $next = $set === null || $set->records === 0 ? 0 : max([0, ...array_map(fn (string $column): int => (int) substr($column, 1), $this->allColumns($set))]);
        $fields = [];
        foreach ($wanted->fields as $field) {
            $own = [...($field['meaning'] === '' ? [] : ['meaning' => $field['meaning']]), ...($field['sensitive'] ? ['sensitive' => true] : [])];
            if ($field['type'] === null) {
                $fields[] = ['name' => $field['name'], 'expression' => (string) $field['expression'], ...$own];

                continue;
            }
            $column = $set === null || $set->records === 0 || $field['was'] === null ? null : $set->table->columns[$field['was']] ?? null;
            $fields[] = ['name' => $field['name'], 'type' => $field['type'], 'column' => $column ?? 'c'.(++$next), ...$own];
        }

        return $fields;
    }

    /** @return list<string> */
    private function allColumns(KeptSet $set): array
    {
        return array_values(array_filter($this->database->table('pg_attribute')->whereRaw('attrelid = ?::regclass', [$set->table->name])->where('attname', '~', '^c[0-9]+$')->pluck('attname')->all(), is_string(...)));
    }

    /** @param  list<array{name: string, type?: string, column?: string}>  $fields */
    private function makeTable(int $id, array $fields, string $key): void
    {
        $types = $columns = [];
        foreach ($fields as $field) {
            if (isset($field['type'], $field['column'])) {
                $types[$field['column']] = $field['type'];
                $columns[$field['name']] = $field['column'];
            }
        }
        $this->database->select('SELECT kybernet_make_records(?, ?, ?)', [$id, json_encode($types, JSON_THROW_ON_ERROR), $columns[$key]]);
    }

    /**
     * @param  list<array<string, mixed>>  $fields
     * @return array<string, mixed>
     */
    private function row(WantedSet $wanted, array $fields): array
    {
        $mapping = [];
        foreach ($wanted->fields as $field) {
            if ($field['type'] !== null && ($field['column'] ?? '') !== '') {
                $mapping[(string) $field['column']] = ['field' => $field['name'], 'form' => $field['form']];
            }
        }

        return [
            'code' => $wanted->code, 'name' => $wanted->name, 'noun' => $wanted->noun, 'unit_id' => $wanted->unitId, 'key_field' => $wanted->key,
            'fields' => json_encode($fields, JSON_THROW_ON_ERROR), 'unit_field' => $wanted->unitField, 'unit_names' => json_encode((object) $wanted->unitNames, JSON_THROW_ON_ERROR),
            'covers_from' => $wanted->coversFrom, 'covers_to' => $wanted->coversTo, 'covers_by_loads' => $wanted->coversByLoads, 'mode' => $wanted->mode,
            'mapping' => json_encode((object) $mapping, JSON_THROW_ON_ERROR),
        ];
    }

    /** @param  list<int>  $owners */
    private function owners(int $set, array $owners): void
    {
        $this->database->table('record_set_owners')->where('record_set_id', $set)->whereNotIn('user_id', $owners)->delete();
        $this->database->table('record_set_owners')->insertOrIgnore(array_map(fn (int $owner): array => ['record_set_id' => $set, 'user_id' => $owner], $owners));
    }

    /**
     * @param  array<string, string>  $problems
     *
     * @throws ValidationException
     */
    private function refuse(array $problems): void
    {
        if ($problems !== []) {
            throw ValidationException::withMessages($problems);
        }
    }
}
