<?php

declare(strict_types=1);

namespace App\Records;

use Brick\Math\BigDecimal;
use Illuminate\Database\Connection;
use Kybernet\Core\Measure\Exact;
use Kybernet\Core\Measure\Percentile;
use Kybernet\Core\Records\Count;
use Kybernet\Core\Records\Counted;
use Kybernet\Core\Records\Day;
use Kybernet\Core\Records\FieldType;
use Kybernet\Core\Records\Instant;
use Kybernet\Core\Records\RecordSet;
use Kybernet\Core\Records\Source;
use Kybernet\Core\Records\Split;
use Kybernet\Core\Records\Take;
use Kybernet\Core\Records\Zone;
use stdClass;

/**
 * What a KPI counts of a table of records, as the database counts it: exact, for sets that are too large to be read.
 */
final readonly class RecordTally
{
    public function __construct(private Connection $database, private RecordSet $set, private RecordTable $table, private Zone $zone) {}

    /**
     * Of all records.
     *
     * @param  non-empty-list<array{int, int}>  $days  first and last of each period; under `open` the last one alone counts
     */
    public function of(Counted $counted, array $days): Count
    {
        return $this->each($counted, [$days])[0][0] ?? new Count;
    }

    /**
     * Of many spans and places at once, in one query.
     *
     * @param  non-empty-list<non-empty-list<array{int, int}>>  $spans  first and last days of the periods of each
     * @param  array<int, list<string>>|null  $members  by what names of units records belong to whom; null for all records, to 0
     * @return array<int, array<int, Count>> by member and position of the span; those without records are left out
     */
    public function each(Counted $counted, array $spans, ?array $members = null): array
    {
        $query = new RecordQuery($this->set, $counted, $this->table, $this->zone, $spans, $members);
        [$seen, $bindings] = $query->seen();
        $counts = [];
        foreach ($this->database->select("SELECT member, place, {$this->taken($counted)} FROM ({$seen}) AS seen GROUP BY member, place", $bindings) as $row) {
            $counts[(int) $row->member][(int) $row->place] = self::count($counted, $row, $query->divisor);
        }

        return $counts;
    }

    /**
     * Of one span, in parts.
     *
     * @param  non-empty-list<array{int, int}>  $days
     * @param  list<string>|null  $names  of units whose records count; null for all
     * @param  array<string, string>  $codes  codes of units by all names that records give them
     * @return list<array{string|null, Count}>
     */
    public function parts(Counted $counted, Split $split, array $days, ?array $names, array $codes): array
    {
        $query = new RecordQuery($this->set, $counted, $this->table, $this->zone, [$days], $names === null ? null : [1 => $names], $split, $codes);
        [$seen, $bindings] = $query->seen();
        $isUnit = $split->of->text === $counted->unit;
        $parts = [];
        foreach ($this->database->select("SELECT part::text AS part, {$this->taken($counted)} FROM ({$seen}) AS seen GROUP BY seen.part", $bindings) as $row) {
            $count = self::count($counted, $row, $query->divisor);
            if ($count->records > 0) {
                $parts[] = [$isUnit || $split->bands !== [] ? $row->part : self::part($split->of->type, $row->part, $query->partDivisor), $count];
            }
        }

        return $parts;
    }

    /** A part as the core calls it. */
    private static function part(FieldType $type, ?string $value, int $divisor): ?string
    {
        return $value === null ? null : match ($type) {
            FieldType::Number => Source::text(Exact::of(BigDecimal::of($value))->dividedBy(Exact::of($divisor))),
            FieldType::Date => Source::text(Day::parse($value)),
            FieldType::Time => Source::text(self::instant($value)),
            FieldType::YesNo => Source::text($value === 'true'),
            FieldType::Text => $value,
        };
    }

    /** An instant as the database writes it, with its zone in hours and perhaps minutes. */
    public static function instant(string $text): Instant
    {
        return Instant::parse(preg_replace(['/ /', '/([+-]\d\d)\z/'], ['T', '$1:00'], $text, 1) ?? $text);
    }

    /** What is counted and taken of the rows of a group. */
    private function taken(Counted $counted): string
    {
        $percent = $counted->percentile();
        $taken = match ($counted->take) {
            Take::Sum, Take::Mean => 'sum(value)::text',
            Take::Minimum => 'min(value)::text',
            Take::Maximum => 'max(value)::text',
            Take::Distinct => 'count(DISTINCT value)::text',
            // The value at the place of the percentile, and the next: (n - 1) · p ÷ 100, counted from 1.
            Take::Median, Take::Percentile => "array_to_string((array_agg(value ORDER BY value) FILTER (WHERE value IS NOT NULL))[floor((count(value) - 1) * {$percent}::numeric * 0.01)::int + 1 : floor((count(value) - 1) * {$percent}::numeric * 0.01)::int + 2], ' ')",
            default => 'NULL::text',
        };

        return "count(value) AS counted, count(*) - count(value) AS empty, count(*) FILTER (WHERE is_met AND value IS NOT NULL) AS met, {$taken} AS taken";
    }

    private static function count(Counted $counted, stdClass $row, int $divisor): Count
    {
        $records = max(0, (int) $row->counted);
        $numbers = $records === 0 || $row->taken === null ? [] : array_map(
            fn (string $number): Exact => Exact::of(BigDecimal::of($number))->dividedBy(Exact::of($divisor)),
            explode(' ', $row->taken),
        );
        $taken = match (true) {
            $counted->take === Take::Median || $counted->take === Take::Percentile => $numbers === [] || $records === 0 ? null : Percentile::between($numbers, $records, $counted->percentile()),
            default => $numbers[0] ?? null,
        };

        return new Count($records, max(0, (int) $row->empty), max(0, (int) $row->met), $taken);
    }
}
