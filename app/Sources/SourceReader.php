<?php

declare(strict_types=1);

namespace App\Sources;

use App\Figures\CountedRows;
use App\Models\RecordLoad;
use App\Models\RecordSet;
use App\Models\User;
use App\Organisation\Organisation;
use App\Organisation\Rights;
use App\Records\KeptSet;
use App\Records\RecordSets;
use App\Sources\Views\CountedThere;
use App\Sources\Views\LoadLine;
use App\Sources\Views\LoadPage;
use App\Sources\Views\Refusal;
use App\Sources\Views\SourceField;
use App\Sources\Views\SourceLine;
use App\Sources\Views\SourcePage;
use App\Sources\Views\UnknownName;
use App\Support\PgArray;
use Illuminate\Database\Connection;

/**
 * Reads what there is of record sets and their loads, for the screens.
 */
final readonly class SourceReader
{
    private const LOADS = 30;

    private const REFUSALS = 100;

    private const ROWS = 8;

    private const EXAMPLES = 3;

    private const UNKNOWN = 50;

    public function __construct(
        private Connection $database,
        private RecordSets $sets,
        private Organisation $organisation,
        private Rights $rights,
        private CountedRows $rows,
        private BringIn $bring,
    ) {}

    /** @return list<SourceLine> those that the person sees */
    public function all(User $user): array
    {
        $owned = array_fill_keys(array_filter($this->database->table('record_set_owners')->where('user_id', $user->id)->pluck('record_set_id')->all(), is_int(...)), true);
        $sets = array_filter($this->sets->all(), fn (KeptSet $set): bool => isset($owned[$set->id]) || $this->rights->analyses($user, $set->unitId));
        $kpis = array_count_values(array_filter($this->database->table('kpis')->whereNotNull('record_set_id')->pluck('record_set_id')->all(), is_int(...)));
        $last = RecordLoad::query()->whereIn('id', RecordLoad::query()->toBase()->whereIn('state', ['applied', 'failed'])->groupBy('record_set_id')->selectRaw('max(id)'))->get()->keyBy('record_set_id')->all();
        $names = $this->people(array_values($last));
        $ways = RecordSet::query()->get()->keyBy('id')->map(fn (RecordSet $row): string => $row->way)->all();

        return array_values(array_map(fn (KeptSet $set): SourceLine => new SourceLine(
            $set->code, $set->name, $set->noun, $this->organisation->unit($set->unitId)->name, $set->records, $ways[$set->id] ?? 'file',
            $set->set()->coverage->from?->key(), $set->set()->coverage->to?->key(), $kpis[$set->id] ?? 0,
            isset($last[$set->id]) ? LoadLine::of($last[$set->id], $names[$last[$set->id]->user_id] ?? null, false) : null, $set->isRetired,
        ), $sets));
    }

    public function page(RecordSet $row, User $user): SourcePage
    {
        $set = $this->sets->of($row->id);
        $kept = $this->database->table('record_sets')->where('id', $row->id)->first(['mapping', 'covers_by_loads', 'way', 'mode', 'version']) ?? throw new \LogicException('A set that was found is there.');
        /** @var array<string, array{field: string, form: string}> $mapping */
        $mapping = json_decode($kept->mapping, true, flags: JSON_THROW_ON_ERROR);
        $columns = [];
        foreach ($mapping as $column => $held) {
            $columns[$held['field']] = [$column, $held['form']];
        }
        $examples = $this->examples($set);
        $changes = $this->rights->analyses($user, $set->unitId);
        $loads = array_values(RecordLoad::query()->where('record_set_id', $set->id)->orderByDesc('id')->limit(self::LOADS)->get()->all());
        $names = $this->people($loads);
        $undoable = $this->bring->latest($set->id);
        $field = fn (string $name, ?string $type, ?string $expression): SourceField => new SourceField(
            $name, $type, $expression, $set->entry->meanings[$name] ?? '', in_array($name, $set->sensitive(), true), $columns[$name][0] ?? null, $columns[$name][1] ?? '', $examples[$name] ?? [],
        );

        return new SourcePage(
            $set->code, $set->name, $set->noun, $this->organisation->unit($set->unitId)->code, $this->organisation->unit($set->unitId)->name, $set->entry->key,
            [
                ...array_map(fn (string $name): SourceField => $field($name, $set->set()->fields[$name]->value, null), array_keys($set->set()->fields)),
                ...array_map(fn (string $name): SourceField => $field($name, null, $set->set()->calculated[$name]->text), array_keys($set->set()->calculated)),
            ],
            $set->unitField, (object) $set->set()->unitNames, $this->unknown($set),
            $set->set()->coverage->from?->key(), $set->set()->coverage->to?->key(), $kept->covers_by_loads, $kept->way, $kept->mode,
            array_values(array_filter($this->database->table('record_set_owners')->where('record_set_id', $set->id)->orderBy('user_id')->pluck('user_id')->all(), is_int(...))),
            $set->records, $set->isRetired, $kept->version,
            array_values($this->database->table('kpis')->where('record_set_id', $set->id)->orderBy('code')->get(['code', 'name'])->map(fn ($kpi): CountedThere => new CountedThere($kpi->code, $kpi->name))->all()),
            array_map(fn (RecordLoad $load): LoadLine => LoadLine::of($load, $names[$load->user_id] ?? null, $load->id === $undoable), $loads),
            $changes,
        );
    }

    public function load(RecordLoad $load): LoadPage
    {
        $set = $this->sets->of($load->record_set_id);
        $fields = $rows = [];
        if ($load->state === 'ready') {
            $found = $this->database->select("SELECT * FROM records.s{$load->id} ORDER BY line LIMIT ".self::ROWS);
            $names = array_flip($set->table->columns);
            foreach ($found as $row) {
                $values = get_object_vars($row);
                $fields = array_values(array_intersect_key($names, $values));
                $rows[] = array_map(fn (string $field): ?string => self::text($values[$set->table->columns[$field]]), $fields);
            }
        }

        return new LoadPage(
            LoadLine::of($load, $this->people([$load])[$load->user_id] ?? null, $this->bring->latest($set->id) === $load->id),
            $set->code,
            array_values($this->database->table('record_refusals')->where('record_load_id', $load->id)->orderBy('line')->limit(self::REFUSALS)->get()->map(fn ($row): Refusal => new Refusal($row->line, $row->field, $row->typed, $row->reason))->all()),
            $fields,
            $rows,
        );
    }

    private static function text(mixed $value): ?string
    {
        return match (true) {
            $value === null => null,
            is_bool($value) => $value ? 'yes' : 'no',
            default => is_scalar($value) ? (string) $value : '',
        };
    }

    /** @return array<string, list<string>> a few values of each field */
    private function examples(KeptSet $set): array
    {
        $examples = [];
        foreach ($this->database->select("SELECT * FROM {$set->table->name} LIMIT 40") as $row) {
            $values = get_object_vars($row);
            foreach ($set->table->columns as $field => $column) {
                $text = self::text($values[$column] ?? null);
                if ($text !== null && ! in_array($text, $examples[$field] ?? [], true) && count($examples[$field] ?? []) < self::EXAMPLES) {
                    $examples[$field][] = $text;
                }
            }
        }

        return $examples;
    }

    /** @return list<UnknownName> what names no unit, the most frequent first */
    private function unknown(KeptSet $set): array
    {
        if ($set->unitField === null) {
            return [];
        }
        $column = $set->table->columns[$set->unitField];

        /** @var list<object{name: string|null, records: int}> $found */
        $found = $this->database->select(
            "SELECT {$column} AS name, count(*) AS records FROM {$set->table->name} WHERE {$column} IS NULL OR NOT {$column} = ANY(?::text[]) GROUP BY 1 ORDER BY 2 DESC, 1 LIMIT ".self::UNKNOWN,
            [PgArray::of(array_map(strval(...), array_keys($this->rows->codes($set->set()))))],
        );

        return array_map(fn (object $row): UnknownName => new UnknownName($row->name, $row->records), $found);
    }

    /**
     * @param  array<int, RecordLoad>  $loads
     * @return array<int, string> names by identity
     */
    private function people(array $loads): array
    {
        return User::query()->whereIn('id', array_values(array_filter(array_map(fn (RecordLoad $load): ?int => $load->user_id, $loads), is_int(...))))->get()->keyBy('id')->map(fn (User $user): string => $user->name)->all();
    }
}
