<?php

declare(strict_types=1);

namespace App\Records;

use App\Support\PgArray;
use Kybernet\Core\Records\Condition;
use Kybernet\Core\Records\Counted;
use Kybernet\Core\Records\Day;
use Kybernet\Core\Records\FieldType;
use Kybernet\Core\Records\RecordSet;
use Kybernet\Core\Records\Source;
use Kybernet\Core\Records\Split;
use Kybernet\Core\Records\Take;
use Kybernet\Core\Records\Zone;

/**
 * The records that a KPI looks at, as the text of a query: a row a record for each span in which it is dated and each
 * place that counts it, with its value.
 *
 * `place` is the position of the span, `member` whose record it is, `value` what is taken of it, `is_met` whether it
 * meets what a share is of, `holds` whether it meets the conditions, `part` to which part of a split it belongs.
 */
final readonly class RecordQuery
{
    private RecordSql $sql;

    /** What numbers in `value` and `part` are to be divided by. */
    public int $divisor;

    public int $partDivisor;

    /** @var list<mixed> */
    private array $bindings;

    private string $from;

    /**
     * @param  non-empty-list<non-empty-list<array{int, int}>>  $spans  first and last days of the periods of each; under `open` the last of each alone counts
     * @param  array<int, list<string>>|null  $members  by what names of units records belong to whom; null for all records, to 0
     * @param  array<string, string>  $codes  codes of units by all names that records give them; for a split by unit
     */
    public function __construct(private RecordSet $set, private Counted $counted, private RecordTable $table, private Zone $zone, array $spans, ?array $members = null, private ?Split $split = null, private array $codes = [])
    {
        $bindings = [];
        $periodEnd = 'last';
        if ($counted->take === Take::Open) {
            $dated = "SELECT *, {$this->dayOf($counted->datedBy)} AS day FROM {$table->name}";
            $from = "(SELECT dated.*, spans.place, spans.last FROM ({$dated}) AS dated JOIN {$this->spans($spans)} ON day <= last AND coalesce({$this->dayOf($counted->until ?? '')} > last, true)) AS placed";
        } elseif (self::followEachOther($spans)) {
            // Looked up in a list of first days: one look at each record, however many periods there are.
            $periodEnd = '('.self::days(array_map(fn (array $span): int => $span[0][1], $spans)).')[place + 1]';
            $firsts = self::days(array_map(fn (array $span): int => $span[0][0], $spans));
            $last = self::day($spans[count($spans) - 1][0][1]);
            $from = "(SELECT *, width_bucket({$this->dayOf($counted->datedBy)}, {$firsts}) - 1 AS place FROM {$table->name} WHERE {$this->dayOf($counted->datedBy)} BETWEEN ".self::day($spans[0][0][0])." AND {$last}) AS placed";
        } else {
            $from = "(SELECT dated.*, spans.place, spans.last FROM (SELECT *, {$this->dayOf($counted->datedBy)} AS day FROM {$table->name}) AS dated JOIN {$this->spans($spans)} ON day BETWEEN spans.first AND spans.until) AS placed";
        }
        if ($members !== null && $counted->unit !== null) {
            $from .= " JOIN unnest(?::text[], ?::bigint[]) AS members (name, member) ON members.name = placed.{$table->columns[$counted->unit]}";
            $names = array_merge([], ...array_values($members));
            $ids = array_merge([], ...array_map(fn (int $id, array $of): array => array_fill(0, count($of), $id), array_keys($members), $members));
            $bindings = [PgArray::of($names), PgArray::of($ids)];
        }
        $this->sql = new RecordSql($set, $table->columns, $zone, $periodEnd);
        $term = $counted->of !== null && $counted->of->type === FieldType::Number ? $this->sql->number($counted->of) : null;
        $this->divisor = $term->divisor ?? 1;
        $part = $split !== null && $split->of->type === FieldType::Number ? $this->sql->number($split->of) : null;
        $this->partDivisor = $part->divisor ?? 1;
        $this->from = $from;
        $this->bindings = $bindings;
    }

    /** What a field or expression gives of each record, as it is shown: numbers to 8 decimals. */
    public function shown(Source $source): string
    {
        if ($source->type !== FieldType::Number) {
            return $this->sql->plain($source);
        }
        $term = $this->sql->number($source);

        return $term->divisor === 1 ? "trim_scale(round({$term->sql}, 8))" : "trim_scale(round({$term->sql} / {$term->divisor}::numeric, 8))";
    }

    /** Whether a record meets what a share is of. */
    public function meets(): string
    {
        return $this->all($this->counted->met);
    }

    /** The records that count, each once for each place. */
    public function counting(): string
    {
        return "{$this->from} WHERE {$this->all($this->counted->where)} AND {$this->value()} IS NOT NULL";
    }

    /** @return list<mixed> what is bound in {@see counting()} */
    public function bindings(): array
    {
        return $this->bindings;
    }

    /** @return array{string, list<mixed>} the text, and what is bound in it */
    public function seen(bool $withConditions = true): array
    {
        $counted = $this->counted;
        $meets = $counted->take === Take::Share ? $this->all($counted->met) : 'false';
        $member = $counted->unit === null || $this->bindings === [] ? '0' : 'members.member';
        [$part, $bindings] = $this->part();

        return [
            "SELECT placed.*, {$member} AS member, {$this->value()} AS value, {$meets} AS is_met{$part} FROM {$this->from}".($withConditions ? " WHERE {$this->all($counted->where)}" : '').' OFFSET 0',
            [...$bindings, ...$this->bindings],
        ];
    }

    /**
     * How many records there are, and which condition each that does not count fails first: 0 for none, -1 where only its
     * value is missing.
     *
     * @return array{string, list<mixed>}
     */
    public function failures(): array
    {
        $cases = implode(' ', array_map(fn (int $at, Condition $condition): string => 'WHEN NOT '.$this->sql->condition($condition).' THEN '.($at + 1), array_keys($this->counted->where), $this->counted->where));
        $failed = 'CASE '.$cases.' WHEN '.$this->value().' IS NULL THEN -1 ELSE 0 END';

        return ["SELECT placed.place, {$failed} AS failed, count(*) AS records FROM {$this->from} GROUP BY 1, 2", $this->bindings];
    }

    private function value(): string
    {
        $of = $this->counted->of;

        return match (true) {
            $of === null || ! $this->counted->take->isOfValues() => 'true',
            $of->type === FieldType::Number => $this->sql->number($of)->sql,
            default => $this->sql->plain($of),
        };
    }

    /** @return array{string, list<mixed>} */
    private function part(): array
    {
        $split = $this->split;
        if ($split === null) {
            return ['', []];
        }
        if ($split->of->text === $this->counted->unit) {
            return [", (SELECT code FROM unnest(?::text[], ?::text[]) AS units (name, code) WHERE units.name = placed.{$this->table->columns[$split->of->text]}) AS part", [PgArray::of(array_map(strval(...), array_keys($this->codes))), PgArray::of(array_values($this->codes))]];
        }
        $term = $split->of->type === FieldType::Number ? $this->sql->number($split->of) : null;
        if ($term === null) {
            return [", {$this->sql->plain($split->of)} AS part", []];
        }
        if ($split->bands === []) {
            return [", {$term->sql} AS part", []];
        }
        $cases = '';
        $names = [];
        foreach ($split->bands as $band) {
            $cases .= $band->upTo === null ? ' ELSE ?::text' : " WHEN {$term->sql} <= ({$band->upTo}::numeric * {$term->divisor}) THEN ?::text";
            $names[] = $band->name;
        }

        return [", CASE WHEN {$term->sql} IS NULL THEN NULL{$cases} END AS part", $names];
    }

    /** @param  list<Condition>  $conditions */
    private function all(array $conditions): string
    {
        return implode(' AND ', ['true', ...array_map($this->sql->condition(...), $conditions)]);
    }

    private function dayOf(string $field): string
    {
        return (new RecordSql($this->set, $this->table->columns, $this->zone, 'last'))->day($field);
    }

    /** @param  non-empty-list<non-empty-list<array{int, int}>>  $spans */
    private function spans(array $spans): string
    {
        $rows = [];
        foreach ($spans as $place => $periods) {
            $last = self::day($periods[count($periods) - 1][1]);
            foreach ($this->counted->take === Take::Open ? [$periods[count($periods) - 1]] : $periods as [$first, $until]) {
                $rows[] = "({$place}, ".self::day($first).', '.self::day($until).", {$last})";
            }
        }

        return '(VALUES '.implode(', ', $rows).') AS spans (place, first, until, last)';
    }

    /** @param  non-empty-list<non-empty-list<array{int, int}>>  $spans */
    private static function followEachOther(array $spans): bool
    {
        foreach ($spans as $at => $periods) {
            if (count($periods) > 1 || ($at > 0 && $periods[0][0] !== $spans[$at - 1][0][1] + 1)) {
                return false;
            }
        }

        return true;
    }

    private static function day(int $day): string
    {
        return "'".(new Day($day))->key()."'::date";
    }

    /** @param  list<int>  $days */
    private static function days(array $days): string
    {
        return 'ARRAY['.implode(', ', array_map(self::day(...), $days)).']';
    }
}
