<?php

declare(strict_types=1);

namespace App\Sources;

use App\Models\User;
use App\Sources\Views\RecordColumn;
use App\Sources\Views\RecordPage;
use Illuminate\Database\Connection;
use Kybernet\Core\Records\FieldType;
use Kybernet\Core\Records\RecordFigures;
use Kybernet\Core\Records\Source;
use Kybernet\Core\Records\Take;

/**
 * Reads the very records that a figure counts: a page of them, or all for a file.
 */
final readonly class RecordsReader
{
    public const PAGE = 50;

    /** What the figure is taken of; no field is called so. */
    public const VALUE = '=';

    public function __construct(private Connection $database, private SourcePolicy $policy) {}

    public function page(Behind $behind, WantedRecords $wanted, User $user): RecordPage
    {
        $columns = $this->columns($behind, $user);
        [$from, $bindings] = $this->from($behind, $columns, $wanted->search);
        $total = $this->database->scalar("SELECT count(*) FROM {$from}", $bindings);
        $order = $this->order($columns, $wanted);
        $found = $this->database->select("SELECT {$this->select($behind, $columns)} FROM {$from} ORDER BY {$order} LIMIT ".self::PAGE.' OFFSET '.(($wanted->page - 1) * self::PAGE), $bindings);
        $actuals = $behind->kpi->measurement->actuals;
        $kept = $actuals instanceof RecordFigures ? (count($behind->periods) === 1 ? $actuals->counts->in($behind->periods[0]) : $actuals->counts->together($behind->periods)) : null;

        return new RecordPage(
            $behind->set->name,
            $behind->set->noun,
            is_int($total) ? $total : 0,
            $kept?->records,
            $behind->counted->take === Take::Share ? $kept?->met : null,
            $columns,
            array_map(fn (mixed $row): array => self::texts($row), $found),
            $behind->counted->take === Take::Share,
        );
    }

    /**
     * For a file: what is sensitive is left out of it.
     *
     * @return \Generator<int, list<string>> the head first
     */
    public function all(Behind $behind, WantedRecords $wanted, User $user): \Generator
    {
        $columns = array_values(array_filter($this->columns($behind, $user), fn (RecordColumn $column): bool => ! $column->sensitive));
        yield array_map(fn (RecordColumn $column): string => $column->name === self::VALUE ? 'counted' : $column->name, $columns);
        [$from, $bindings] = $this->from($behind, $columns, $wanted->search);
        foreach ($this->database->cursor("SELECT {$this->select($behind, $columns)} FROM {$from} ORDER BY {$this->order($columns, $wanted)}", $bindings) as $row) {
            yield array_map(fn (?string $text): string => $text ?? '', self::texts($row));
        }
    }

    /** @return list<RecordColumn> */
    private function columns(Behind $behind, User $user): array
    {
        $sees = $this->policy->sees($user, $behind->set->id);
        $set = $behind->set->set();
        $value = $this->value($behind);
        $own = $value === null || isset($set->fields[$value->text]) || isset($set->calculated[$value->text]) ? $value?->text : self::VALUE;
        // What tells them apart, what the figure is about, then all else.
        $names = array_values(array_unique([$behind->set->entry->key, ...($own === null ? [] : [$own]), ...array_keys($set->fields), ...array_keys($set->calculated)]));

        return array_map(function (string $name) use ($behind, $set, $sees, $value, $own): RecordColumn {
            $source = $name === self::VALUE ? $value : $set->source($name);
            $isSensitive = $source !== null && $behind->set->isSensitive($source);

            return new RecordColumn(
                $name, ($set->fields[$name] ?? FieldType::Number)->value, $name === self::VALUE ? $value->text ?? '' : $behind->set->entry->meanings[$name] ?? '', $isSensitive, $isSensitive && ! $sees, $name === $own,
            );
        }, $names);
    }

    /** What is taken of each record, or what a share is of. */
    private function value(Behind $behind): ?Source
    {
        return $behind->counted->of ?? ($behind->counted->met[0] ?? null)?->comparisons[0]->source;
    }

    /**
     * @param  list<RecordColumn>  $columns
     * @return array{string, list<mixed>}
     */
    private function from(Behind $behind, array $columns, string $search): array
    {
        $query = $behind->query();
        $shown = [];
        foreach ($columns as $at => $column) {
            $source = $column->name === self::VALUE ? $this->value($behind) : $behind->set->set()->source($column->name);
            $shown[] = $source === null ? "NULL AS v{$at}" : "{$query->shown($source)} AS v{$at}";
        }
        $from = '(SELECT '.implode(', ', $shown).", ({$query->meets()}) AS is_met FROM {$query->counting()}) AS behind";
        $searched = $search === '' ? [] : array_keys(array_filter($columns, fn (RecordColumn $column): bool => ! $column->masked && $column->type === 'text'));
        if ($searched === []) {
            return [$from.($search === '' ? '' : ' WHERE false'), $query->bindings()];
        }
        $like = '%'.addcslashes($search, '%_\\').'%';

        return [$from.' WHERE '.implode(' OR ', array_map(fn (int $at): string => "v{$at} ILIKE ?", $searched)), [...$query->bindings(), ...array_fill(0, count($searched), $like)]];
    }

    /** @param  list<RecordColumn>  $columns */
    private function select(Behind $behind, array $columns): string
    {
        $zone = $behind->zone->name;

        return implode(', ', array_map(fn (int $at, RecordColumn $column): string => match (true) {
            $column->masked => "CASE WHEN v{$at} IS NULL THEN NULL ELSE '•••' END AS v{$at}",
            $column->type === 'time' => "to_char(v{$at} AT TIME ZONE '{$zone}', 'YYYY-MM-DD HH24:MI') AS v{$at}",
            $column->type === 'yesno' => "CASE WHEN v{$at} THEN 'yes' WHEN NOT v{$at} THEN 'no' END AS v{$at}",
            default => "v{$at}::text AS v{$at}",
        }, array_keys($columns), $columns)).", CASE WHEN is_met THEN 'met' ELSE '' END AS met";
    }

    /** @param  list<RecordColumn>  $columns */
    private function order(array $columns, WantedRecords $wanted): string
    {
        foreach ($columns as $at => $column) {
            if ($column->name === $wanted->sort && ! $column->masked) {
                // By the value itself, not by the text that is shown of it.
                return "behind.v{$at} ".($wanted->isDown ? 'DESC' : 'ASC').' NULLS LAST, behind.v0';
            }
        }

        return 'behind.v0';
    }

    /** @return list<string|null> */
    private static function texts(mixed $row): array
    {
        return array_map(fn (mixed $value): ?string => is_string($value) ? $value : null, array_values(is_object($row) ? get_object_vars($row) : []));
    }
}
