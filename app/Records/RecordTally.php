<?php

declare(strict_types=1);

namespace App\Records;

use Brick\Math\BigDecimal;
use Illuminate\Database\Connection;
use Kybernet\Core\Measure\Exact;
use Kybernet\Core\Records\Condition;
use Kybernet\Core\Records\Counted;
use Kybernet\Core\Records\Day;
use Kybernet\Core\Records\FieldType;
use Kybernet\Core\Records\RecordSet;
use Kybernet\Core\Records\Take;
use Kybernet\Core\Records\Taking;
use Kybernet\Core\Records\Zone;

/**
 * What a KPI counts of a table of records, as the database counts it: exact, for sets that are too large to be read.
 */
final readonly class RecordTally
{
    /**
     * @param  string  $table  of the records
     * @param  array<string, string>  $columns  by field
     */
    public function __construct(private Connection $database, private RecordSet $set, private string $table, private array $columns, private Zone $zone) {}

    /**
     * @param  non-empty-list<array{int, int}>  $days  first and last of each period; under `open` the last one alone counts
     * @param  string  $among  which records belong to the unit, as a condition on the table
     * @return array{counted: int, empty: int, met: int, figure: Exact|null} how many count, have no value, meet what a share is of; and what is taken of them
     */
    public function of(Counted $counted, array $days, string $among = 'true'): array
    {
        $last = (new Day($days[count($days) - 1][1]))->key();
        $sql = new RecordSql($this->set, $this->columns, $this->zone, "'{$last}'::date");
        $term = $counted->of !== null && $counted->of->type === FieldType::Number ? $sql->number($counted->of) : null;
        $value = match (true) {
            ! $counted->take->isOfValues() || $counted->of === null => 'true',
            $term !== null => $term->sql,
            default => $sql->plain($counted->of),
        };
        $meets = $counted->take === Take::Share ? self::all($counted->met, $sql) : 'false';
        $seen = "(SELECT {$value} AS value, {$meets} AS is_met FROM {$this->table} WHERE {$among} AND {$this->dated($counted, $days, $sql, $last)} AND ".self::all($counted->where, $sql).' OFFSET 0) AS seen';
        $row = $this->database->selectOne("SELECT count(value) AS counted, count(*) - count(value) AS empty, count(*) FILTER (WHERE is_met AND value IS NOT NULL) AS met, {$this->taken($counted->take)} AS taken FROM {$seen}");
        if (! is_object($row) || ! is_int($row->counted ?? null) || ! is_int($row->empty ?? null) || ! is_int($row->met ?? null)) {
            throw new \LogicException('A query of counts gives them.');
        }
        $taken = match (true) {
            $row->counted < 1 => [],
            $counted->take === Take::Median || $counted->take === Take::Percentile => $this->neighbours($seen, Taking::place($row->counted, $counted->percentile())),
            default => is_string($row->taken ?? null) ? [$row->taken] : [],
        };
        $numbers = array_map(fn (string $number): Exact => Exact::of(BigDecimal::of($number))->dividedBy(Exact::of($term->divisor ?? 1)), $taken);

        return ['counted' => $row->counted, 'empty' => $row->empty, 'met' => $row->met, 'figure' => self::figure($counted, $numbers, $row->counted, $row->met)];
    }

    /**
     * The value at a place among those in order, and the one after it.
     *
     * @return list<string>
     */
    private function neighbours(string $seen, int $place): array
    {
        /** @var list<object{near: string}> $rows */
        $rows = $this->database->select("SELECT value::text AS near FROM {$seen} WHERE value IS NOT NULL ORDER BY value OFFSET {$place} LIMIT 2");

        return array_map(fn (object $row): string => $row->near, $rows);
    }

    /** @param  list<Condition>  $conditions */
    private static function all(array $conditions, RecordSql $sql): string
    {
        return implode(' AND ', ['true', ...array_map($sql->condition(...), $conditions)]);
    }

    /** @param  list<Exact>  $numbers  what the database took */
    private static function figure(Counted $counted, array $numbers, int $count, int $met): ?Exact
    {
        return match ($counted->take) {
            Take::Count, Take::Share, Take::Open => Taking::of($counted, [], $count, $met),
            Take::Sum, Take::Distinct => $numbers[0] ?? Exact::of(0),
            Take::Mean => isset($numbers[0]) ? $numbers[0]->dividedBy(Exact::of($count)) : null,
            Take::Minimum, Take::Maximum => $numbers[0] ?? null,
            Take::Median, Take::Percentile => $numbers === [] || $count < 1 ? null : Taking::between($numbers, $count, $counted->percentile()),
        };
    }

    /** @param  non-empty-list<array{int, int}>  $days */
    private function dated(Counted $counted, array $days, RecordSql $sql, string $last): string
    {
        if ($counted->take === Take::Open && $counted->until !== null) {
            return "{$sql->day($counted->datedBy)} <= '{$last}' AND coalesce({$sql->day($counted->until)} > '{$last}', true)";
        }
        $day = $sql->day($counted->datedBy);

        return '('.implode(' OR ', array_map(fn (array $period): string => "{$day} BETWEEN '".(new Day($period[0]))->key()."' AND '".(new Day($period[1]))->key()."'", $days)).')';
    }

    /** What is taken of the values, as text; the values of a percentile are asked for by their places. */
    private function taken(Take $take): string
    {
        return match ($take) {
            Take::Sum, Take::Mean => 'sum(value)::text',
            Take::Minimum => 'min(value)::text',
            Take::Maximum => 'max(value)::text',
            Take::Distinct => 'count(DISTINCT value)::text',
            default => 'NULL::text',
        };
    }
}
