<?php

declare(strict_types=1);

namespace App\Figures;

use App\Organisation\Organisation;
use App\Records\KeptSet;
use App\Records\RecordSets;
use App\Records\RecordTally;
use App\Support\Installation;
use App\Support\Month;
use App\Support\PeriodDate;
use App\Support\PgArray;
use Brick\Math\BigDecimal;
use Illuminate\Database\Connection;
use Kybernet\Core\Calendar\FinancialYear;
use Kybernet\Core\Calendar\Frequency;
use Kybernet\Core\Calendar\Period;
use Kybernet\Core\Measure\Exact;
use Kybernet\Core\Measure\KeptMeasurement;
use Kybernet\Core\Measure\Series;
use Kybernet\Core\Records\Count;
use Kybernet\Core\Records\Counted;
use Kybernet\Core\Records\Day;
use Kybernet\Core\Records\RecordFigures;
use Kybernet\Core\Records\RecordSet;
use Kybernet\Core\Records\Split;
use Kybernet\Core\Records\Zone;
use stdClass;

/**
 * Reads what was counted of records, in bulk.
 */
final readonly class CountedRows
{
    /** What is kept of a period itself; anything else is a longer span. */
    public const PERIOD = 'period';

    /** What {@see count()} reads of a row. */
    public const COUNT = 'records, empty, met, trim_scale(taken)::text AS taken, trim_scale(divisor)::text AS divisor';

    /** Of a figure in a workbook. */
    private const DECIMALS = 8;

    public function __construct(
        private Connection $database,
        private PeriodDate $dates,
        private FinancialYear $year,
        private RecordSets $sets,
        private Organisation $organisation,
        private Installation $installation,
    ) {}

    /**
     * @param  list<stdClass>  $rows  of measurements
     * @param  Period|null  $first  from this month …
     * @param  Period|null  $last  … to this one; all where null
     * @return KeptCounters|null null where none of them is counted
     */
    public function counters(array $rows, ?Period $first, ?Period $last): ?KeptCounters
    {
        $counted = array_values(array_filter($rows, fn (stdClass $row): bool => $row->kind === 'records'));
        if ($counted === []) {
            return null;
        }
        $ids = PgArray::of(array_column($counted, 'id'));
        [$from, $to] = [$first === null ? '0001-01-01' : Month::date($first->plus(-1)), $last === null ? '9999-12-31' : Month::date($last->plus(1))];
        $counts = $late = $reach = [];
        foreach ($this->database->select('SELECT kpi_unit_id, span, period, '.self::COUNT.' FROM counted_figures WHERE kpi_unit_id = ANY(?::bigint[]) AND period BETWEEN ? AND ?', [$ids, $from, $to]) as $row) {
            $counts[$row->kpi_unit_id][$row->span][$row->period] = self::count($row);
        }
        foreach ($this->database->select('SELECT kpi_unit_id, period FROM late_figures WHERE kpi_unit_id = ANY(?::bigint[])', [$ids]) as $row) {
            $late[$row->kpi_unit_id][] = $row->period;
        }
        foreach ($this->database->table('counted_kpis')->whereIn('kpi_id', array_column($counted, 'kpi_id'))->get(['kpi_id', 'reach_from', 'reach_to']) as $row) {
            $reach[$row->kpi_id] = $row->reach_from === null ? null : [Day::parse($row->reach_from)->number, Day::parse($row->reach_to ?? $row->reach_from)->number];
        }
        $made = [];
        foreach ($counted as $row) {
            $made[$row->code][$row->unit] = fn (KeptMeasurement $placed): RecordFigures => $this->figures($row, $placed, $counts[$row->id] ?? [], $late[$row->id] ?? [], $reach[$row->kpi_id] ?? null);
        }

        return new KeptCounters($made);
    }

    public static function count(stdClass $row): Count
    {
        return new Count(max(0, $row->records), max(0, $row->empty), max(0, $row->met), $row->taken === null ? null : Exact::of(BigDecimal::of($row->taken))->dividedBy(Exact::of(BigDecimal::of($row->divisor))));
    }

    /**
     * What closed periods would be with the records that came late.
     *
     * @param  list<int>  $measurements
     * @return array<int, array<string, Count>> by measurement and date
     */
    public function late(array $measurements): array
    {
        $late = [];
        foreach ($this->database->select('SELECT kpi_unit_id, period, '.self::COUNT.' FROM late_figures WHERE kpi_unit_id = ANY(?::bigint[])', [PgArray::of($measurements)]) as $row) {
            $late[$row->kpi_unit_id][$row->period] = self::count($row);
        }

        return $late;
    }

    /**
     * Counted figures that cannot be counted from what a workbook has of the records: a field that is sensitive would be
     * needed, or the month was closed before some of them came.
     *
     * @param  list<array{stdClass, KeptMeasurement}>  $placed
     * @return array<int, array<string, string>> by measurement and period
     */
    public function told(array $placed): array
    {
        $told = [];
        foreach ($placed as [$row, $kept]) {
            $counted = $kept->definition->counted;
            $set = $counted === null ? null : $this->sets->byCode($counted->records);
            if ($counted !== null && $set !== null && ! $kept->isGathered) {
                $isWhole = array_intersect($counted->fields(), $set->sensitive()) !== [];
                $told[$row->id] = [$kept->definition, $isWhole];
            }
        }
        if ($told === []) {
            return [];
        }
        $figures = [];
        $late = $this->late(array_keys($told));
        foreach ($this->database->select('SELECT kpi_unit_id, period, '.self::COUNT." FROM counted_figures WHERE kpi_unit_id = ANY(?::bigint[]) AND span = 'period'", [PgArray::of(array_keys($told))]) as $row) {
            [$definition, $isWhole] = $told[$row->kpi_unit_id];
            $figure = $isWhole || isset($late[$row->kpi_unit_id][$row->period]) ? self::count($row)->figure($definition->counted->take ?? throw new \LogicException('What is counted says how.')) : null;
            if ($figure !== null) {
                $figures[$row->kpi_unit_id][$this->dates->period($row->period, $definition->frequency)->key()] = (string) $figure->rounded(self::DECIMALS)->stripTrailingZeros();
            }
        }

        return $figures;
    }

    /** What one calls several of the records that are counted. */
    public function noun(Counted $counted): string
    {
        return $this->sets->byCode($counted->records)->noun ?? 'records';
    }

    /**
     * By what names records belong to units and to those below them.
     *
     * @param  list<int>  $units
     * @return array<int, list<string>> by unit
     */
    public function names(RecordSet $set, array $units): array
    {
        $codes = [];
        foreach ($this->codes($set) as $name => $code) {
            $codes[$code][] = (string) $name;
        }
        $names = [];
        foreach ($units as $unit) {
            $names[$unit] = array_merge([], ...array_map(fn (int $below): array => $codes[$this->organisation->unit($below)->code] ?? [], $this->organisation->below($unit)));
        }

        return $names;
    }

    /** @return array<string, string> codes of units by all names that records give them; a code goes before another name */
    public function codes(RecordSet $set): array
    {
        $own = [];
        foreach ($this->organisation->units() as $unit) {
            $own[$unit->code] = $unit->code;
        }

        return $own + array_filter($set->unitNames, fn (string $code): bool => isset($own[$code]));
    }

    public function zone(): Zone
    {
        return new Zone($this->installation->timeZone());
    }

    public function tally(KeptSet $set): RecordTally
    {
        return new RecordTally($this->database, $set->set(), $set->table, $this->zone());
    }

    /**
     * What a KPI would be that is counted so, from its records; nothing of it is kept.
     *
     * @param  non-empty-list<Period>  $periods  one after the other
     * @param  list<string>|null  $names  of units whose records count; null for all
     */
    public function tried(Counted $counted, KeptSet $set, Frequency $frequency, array $periods, ?array $names): RecordFigures
    {
        $counts = $this->tally($set)->each($counted, array_map(fn (Period $period): array => [$this->year->days($period)], $periods), $names === null ? null : [0 => $names])[0] ?? [];
        $kept = [];
        foreach ($periods as $at => $period) {
            $kept[$period->key()] = $counts[$at] ?? new Count;
        }
        // Whether a set without known ends is open at a day hangs on its own days, which are looked for when it is saved.
        $reach = [$this->year->days($periods[0])[0], $this->year->days($periods[count($periods) - 1])[1]];

        return new RecordFigures($counted, $set->set()->coverage, $this->year, $frequency, new KeptCounts($counted->take, $this->year, $frequency, $kept, [], [], $reach, fn (): Count => new Count, fn (): array => []), new Series([]));
    }

    /**
     * @param  array<string, array<string, Count>>  $counts  by span and date
     * @param  list<string>  $late  dates
     * @param  array{int, int}|null  $reach
     */
    private function figures(stdClass $row, KeptMeasurement $placed, array $counts, array $late, ?array $reach): RecordFigures
    {
        $counted = $placed->definition->counted ?? throw new \LogicException('What is counted says how.');
        $set = $this->sets->byCode($counted->records) ?? throw new \LogicException('What is counted from has its set.');
        $frequency = $placed->definition->frequency;
        $key = fn (string $date): string => $this->dates->period($date, $frequency)->key();
        $periods = $longer = [];
        foreach ($counts as $span => $dates) {
            foreach ($dates as $date => $count) {
                if ($span === self::PERIOD) {
                    $periods[$key($date)] = $count;
                } else {
                    $longer[$key($date)][] = $count;
                }
            }
        }
        $names = fn (): ?array => $counted->unit === null ? null : $this->names($set->set(), [$row->unit_id])[$row->unit_id];
        $days = fn (array $periods): array => array_map($this->year->days(...), $periods);

        return new RecordFigures($counted, $set->set()->coverage, $this->year, $frequency, new KeptCounts(
            $counted->take,
            $this->year,
            $frequency,
            $periods,
            $longer,
            array_flip(array_map($key, $late)),
            $reach,
            fn (array $periods): Count => $this->tally($set)->each($counted, [$days($periods)], $counted->unit === null ? null : [1 => $names() ?? []])[$counted->unit === null ? 0 : 1][0] ?? new Count,
            fn (Split $split, array $periods): array => $this->tally($set)->parts($counted, $split, $days($periods), $names(), $this->codes($set->set())),
        ), $placed->readings);
    }
}
