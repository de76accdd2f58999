<?php

declare(strict_types=1);

namespace App\Figures;

use App\Records\RecordSets;
use App\Support\PeriodDate;
use App\Support\PgArray;
use Carbon\CarbonImmutable;
use Illuminate\Database\Connection;
use Kybernet\Core\Calendar\FinancialYear;
use Kybernet\Core\Calendar\Frequency;
use Kybernet\Core\Calendar\Period;
use Kybernet\Core\Calendar\Span;
use Kybernet\Core\Measure\Definition;
use Kybernet\Core\Records\Count;
use Kybernet\Core\Records\Counted;
use Kybernet\Core\Records\Day;
use Kybernet\Core\Records\Take;
use stdClass;

/**
 * Counts KPIs again from their records and keeps what they give. What is closed stays as it was; what it would be by now
 * is kept beside it, to be told.
 */
final readonly class CountedWriter
{
    /** Of records that are dated in other years nothing is kept: nobody reports so far back, or so far ahead. */
    private const EARLIEST = '1990-01-01';

    private const YEARS_AHEAD = 2;

    /** So many periods of units are counted while somebody waits; more are left to a worker. */
    private const MOST_AT_ONCE = 2_000;

    public function __construct(
        private Connection $database,
        private DefinitionRows $definitions,
        private CountedRows $rows,
        private RecordSets $sets,
        private MeasurementLock $lock,
        private Closures $closures,
        private FinancialYear $year,
        private PeriodDate $dates,
    ) {}

    /**
     * To be called in the transaction of what changed.
     *
     * @param  list<int>  $kpis  of which those that are counted from records are counted
     * @param  array{int, int}|null  $days  the first and the last local day that anything changed of; null for all
     */
    public function __invoke(array $kpis, ?array $days = null): void
    {
        $this->lock->holdKpis($kpis);
        // Nobody closes a month meanwhile; what was closed while this waited is seen below.
        $this->database->select('SELECT pg_advisory_xact_lock_shared(8172)');
        $this->closures->forget();
        foreach ($this->database->table('kpis')->whereIn('id', $kpis)->where('kind', 'records')->orderBy('id')->get(['kpis.*', $this->database->raw('NULL AS weighted_by')]) as $row) {
            $this->count($row, $this->definitions->definition($row, []), $days);
        }
    }

    /**
     * Takes in what came late, after a month was reopened.
     *
     * @param  list<int>  $units
     */
    public function takeIn(array $units): void
    {
        $late = $this->database->table('late_figures')->join('kpi_unit', 'kpi_unit.id', '=', 'late_figures.kpi_unit_id')->whereIn('kpi_unit.unit_id', $units)->distinct()->pluck('kpi_unit.kpi_id')->all();
        $this(array_values(array_filter($late, is_int(...))));
    }

    /** KPIs whose kind is another by now have nothing counted. */
    public function clear(int $kpi): void
    {
        $places = $this->database->table('kpi_unit')->where('kpi_id', $kpi)->select('id');
        $this->database->table('counted_figures')->whereIn('kpi_unit_id', $places)->delete();
        $this->database->table('late_figures')->whereIn('kpi_unit_id', $places)->delete();
        $this->database->table('counted_kpis')->where('kpi_id', $kpi)->delete();
    }

    /**
     * Leaves KPIs to a worker where more would be counted again than anybody waits for.
     *
     * @param  list<int>  $kpis
     * @return bool whether it did
     */
    public function putOffLarge(array $kpis): bool
    {
        $size = $this->database->table('counted_figures')->whereIn('kpi_unit_id', $this->database->table('kpi_unit')->whereIn('kpi_id', $kpis)->select('id'))->count();
        if ($size <= self::MOST_AT_ONCE) {
            return false;
        }
        foreach ($kpis as $kpi) {
            $this->database->table('counted_kpis')->updateOrInsert(['kpi_id' => $kpi], ['is_due' => true]);
        }

        return true;
    }

    /** @param  array{int, int}|null  $days */
    private function count(stdClass $kpi, Definition $definition, ?array $days): void
    {
        $counted = $definition->counted ?? throw new \LogicException('What is counted says how.');
        $set = $this->sets->byCode($counted->records) ?? throw new \LogicException('What is counted from has its set.');
        $reach = $this->reach($counted, $set->table->name, $set->table->columns, $set->set()->fields);
        $this->database->table('counted_kpis')->updateOrInsert(['kpi_id' => $kpi->id], [
            'reach_from' => $reach === null ? null : (new Day($reach[0]))->key(), 'reach_to' => $reach === null ? null : (new Day($reach[1]))->key(), 'is_due' => false, 'counted_at' => now(),
        ]);
        $places = $this->database->table('kpi_unit')->where('kpi_id', $kpi->id)->where('is_gathered', false)->orderBy('id')->get(['id', 'unit_id', 'created_at']);
        if ($places->isEmpty()) {
            return;
        }
        $periods = $this->periods($counted, $definition->frequency, $reach, $set->set()->coverage->to?->number, $days);
        $tally = $this->rows->tally($set);
        $units = array_values($places->pluck('unit_id')->all());
        $names = $counted->unit === null ? null : $this->rows->names($set->set(), $units);
        $members = $names === null ? null : array_combine(array_values($places->pluck('id')->all()), array_map(fn (int $unit): array => $names[$unit], $units));
        $spans = [CountedRows::PERIOD => array_map(fn (Period $period): array => [$this->year->days($period)], $periods)];
        $ends = [CountedRows::PERIOD => $periods];
        foreach ($counted->take->isTakenOfParts() ? [] : [Span::Quarter, Span::YearToDate, Span::Rolling12] as $span) {
            [$ends[$span->value], $spans[$span->value]] = $this->longer($span, $definition->frequency, $periods, $counted, $days === null ? null : $this->year->holding($definition->frequency, $days[1]));
        }
        $found = [];
        foreach ($spans as $span => $ranges) {
            foreach ($ranges === [] ? [] : $tally->each($counted, $ranges, $members) as $member => $counts) {
                foreach ($members === null ? $places->pluck('id')->all() : [$member] as $place) {
                    foreach ($counts as $at => $count) {
                        $found[$place][$span][$this->dates->date($ends[$span][$at])] = $count;
                    }
                }
            }
        }
        foreach ($places as $place) {
            $this->keep($place, $definition->frequency, array_map(fn (array $of): array => array_map($this->dates->date(...), $of), $ends), $found[$place->id] ?? [], $spans);
        }
    }

    /**
     * Of the whole set: from the first local day on which a record begins to the last of any.
     *
     * @param  array<string, string>  $columns
     * @param  array<string, \Kybernet\Core\Records\FieldType>  $fields
     * @return array{int, int}|null
     */
    private function reach(Counted $counted, string $table, array $columns, array $fields): ?array
    {
        $zone = $this->rows->zone()->name;
        $day = fn (string $field, string $of): string => $fields[$field]->value === 'time' ? "({$of}({$columns[$field]}) AT TIME ZONE '{$zone}')::date" : "{$of}({$columns[$field]})";
        $last = $counted->until === null ? $day($counted->datedBy, 'max') : "greatest({$day($counted->datedBy, 'max')}, {$day($counted->until, 'max')})";
        $row = $this->database->selectOne("SELECT {$day($counted->datedBy, 'min')}::text AS first, {$last}::text AS last FROM {$table}");

        return $row->first === null || $row->last === null || ! is_string($row->first) || strlen($row->first) !== 10 || strlen($row->last) !== 10 ? null : [Day::parse($row->first)->number, Day::parse($row->last)->number];
    }

    /**
     * @param  array{int, int}|null  $reach
     * @param  array{int, int}|null  $days
     * @return list<Period>
     */
    private function periods(Counted $counted, Frequency $frequency, ?array $reach, ?int $covered, ?array $days): array
    {
        if ($reach === null) {
            return [];
        }
        $first = max($reach[0], Day::parse(self::EARLIEST)->number);
        $last = min(max($reach[1], $covered ?? 0), Day::parse(CarbonImmutable::now('UTC')->addYears(self::YEARS_AHEAD)->toDateString())->number);
        if ($days !== null) {
            $first = max($first, $days[0]);
            // What is open stays so until it ends.
            $last = $counted->take === Take::Open ? $last : min($last, $days[1]);
        }
        $periods = $last < $first ? [] : $this->year->holding($frequency, $first)->to($this->year->holding($frequency, $last));

        return array_values(array_filter($periods, fn (Period $period): bool => ! $counted->beginsAfter($period, $this->year)));
    }

    /**
     * @param  list<Period>  $periods
     * @return array{list<Period>, list<non-empty-list<array{int, int}>>} what they end with, and their days
     */
    private function longer(Span $span, Frequency $frequency, array $periods, Counted $counted, ?Period $changed): array
    {
        $ends = $spans = [];
        $last = $periods === [] ? null : $periods[count($periods) - 1];
        // A change shows for a year in the spans that end later.
        $all = $changed === null || $last === null ? $periods : [...$periods, ...$last->plus(1)->to($this->year->holding($frequency, $this->year->days($last)[1] + 366))];
        foreach ($all as $period) {
            $of = array_values(array_filter($span->periods($frequency, $this->year->endMonth($period), $this->year), fn (Period $each): bool => $each->compareTo($period) <= 0 && ! $counted->beginsAfter($each, $this->year)));
            if (count($of) > 1) {
                $ends[] = $period;
                $spans[] = [[$this->year->days($of[0])[0], $this->year->days($period)[1]]];
            }
        }

        return [$ends, $spans];
    }

    /**
     * @param  array<string, list<string>>  $looked  dates that were counted, by span
     * @param  array<string, array<string, Count>>  $found  by span and date
     * @param  array<string, list<non-empty-list<array{int, int}>>>  $days  of each that was counted
     */
    private function keep(stdClass $place, Frequency $frequency, array $looked, array $found, array $days): void
    {
        $standing = [];
        foreach ($this->database->select('SELECT span, period, '.CountedRows::COUNT.' FROM counted_figures WHERE kpi_unit_id = ?', [$place->id]) as $row) {
            $standing[$row->span][$row->period] = CountedRows::count($row);
        }
        $isNew = $standing === [];
        $write = $remove = $late = $settled = [];
        $stayed = array_map(fn (string $date): int => Day::parse($date)->number, array_values(array_filter($this->database->table('late_figures')->where('kpi_unit_id', $place->id)->pluck('period')->all(), is_string(...))));
        foreach ($looked as $span => $dates) {
            foreach ($dates as $at => $date) {
                [$is, $was] = [$found[$span][$date] ?? new Count, $standing[$span][$date] ?? new Count];
                $isClosed = ! $isNew && $this->closures->locksPlace($place->unit_id, $place->created_at, $this->dates->period($date, $frequency));
                if ($isClosed) {
                    if ($span === CountedRows::PERIOD) {
                        if ($is->isSame($was)) {
                            $settled[] = $date;
                        } else {
                            $late[$date] = $is;
                            $stayed[] = Day::parse($date)->number;
                        }
                    }
                } elseif ($span !== CountedRows::PERIOD && $this->holds($days[$span][$at][0], $stayed)) {
                    // It would hold what came late in a month that stays as it was closed.
                    if (isset($standing[$span][$date])) {
                        $remove[$span][] = $date;
                    }
                } elseif ($is->records === 0 && $is->empty === 0) {
                    if (isset($standing[$span][$date])) {
                        $remove[$span][] = $date;
                    }
                    $settled[] = $date;
                } else {
                    if (! $is->isSame($was)) {
                        $write[$span][$date] = $is;
                    }
                    $settled[] = $date;
                }
            }
        }
        foreach ($remove as $span => $dates) {
            $this->database->table('counted_figures')->where('kpi_unit_id', $place->id)->where('span', $span)->whereIn('period', $dates)->delete();
        }
        foreach ($write as $span => $counts) {
            $this->database->affectingStatement(
                'INSERT INTO counted_figures (kpi_unit_id, span, period, records, empty, met, taken, divisor) SELECT ?, ?, * FROM unnest(?::date[], ?::bigint[], ?::bigint[], ?::bigint[], ?::numeric[], ?::numeric[])
                 ON CONFLICT (kpi_unit_id, span, period) DO UPDATE SET records = excluded.records, empty = excluded.empty, met = excluded.met, taken = excluded.taken, divisor = excluded.divisor',
                [$place->id, $span, ...self::columns($counts)],
            );
        }
        $this->database->table('late_figures')->where('kpi_unit_id', $place->id)->whereIn('period', $settled)->delete();
        if ($late !== []) {
            $this->database->affectingStatement(
                'INSERT INTO late_figures (kpi_unit_id, period, records, empty, met, taken, divisor) SELECT ?, * FROM unnest(?::date[], ?::bigint[], ?::bigint[], ?::bigint[], ?::numeric[], ?::numeric[])
                 ON CONFLICT (kpi_unit_id, period) DO UPDATE SET records = excluded.records, empty = excluded.empty, met = excluded.met, taken = excluded.taken, divisor = excluded.divisor',
                [$place->id, ...self::columns($late)],
            );
        }
    }

    /**
     * @param  array{int, int}  $days
     * @param  list<int>  $stayed  first days of periods that stay as they were closed
     */
    private function holds(array $days, array $stayed): bool
    {
        return array_filter($stayed, fn (int $day): bool => $day >= $days[0] && $day <= $days[1]) !== [];
    }

    /**
     * @param  array<string, Count>  $counts  by date
     * @return list<string>
     */
    private static function columns(array $counts): array
    {
        $each = array_values($counts);
        $fractions = array_map(fn (Count $count): ?array => $count->taken?->fraction(), $each);

        return [
            PgArray::of(array_keys($counts)),
            PgArray::of(array_column($each, 'records')),
            PgArray::of(array_column($each, 'empty')),
            PgArray::of(array_column($each, 'met')),
            PgArray::of(array_map(fn (?array $fraction): ?string => isset($fraction) ? (string) $fraction[0] : null, $fractions)),
            PgArray::of(array_map(fn (?array $fraction): string => isset($fraction) ? (string) $fraction[1] : '1', $fractions)),
        ];
    }
}
