<?php

declare(strict_types=1);

namespace App\Review;

use App\Figures\MeasurementLine;
use App\Figures\MeasurementStore;
use App\Figures\NoteRows;
use App\Kept\AssessedSpan;
use App\Kept\AssessmentStore;
use App\Organisation\Organisation;
use App\Review\Views\ScorecardRow;
use App\Support\Month;
use App\Support\PeriodDate;
use App\Support\PgArray;
use Carbon\CarbonImmutable;
use Closure;
use Illuminate\Database\Connection;
use Kybernet\Core\Attention\Deadline;
use Kybernet\Core\Calendar\Period;
use Kybernet\Core\Calendar\Span;
use Kybernet\Core\Scorecard;
use Kybernet\Core\Status\Movement;

/**
 * Makes the rows of a scorecard: what was judged, whether it has a note, and whether something is being done.
 */
final readonly class ScorecardRows
{
    /** How far back, in months, a week is held against what was before. */
    private const WEEK_REACH = 26;

    public function __construct(private AssessmentStore $assessments, private Organisation $organisation, private Connection $database, private MeasurementStore $kpis, private Scorecard $scorecard, private NoteRows $notes, private PeriodDate $dates) {}

    /**
     * Some KPIs, wherever they are measured.
     *
     * @param  list<MeasurementLine>  $kpis
     * @return array<int, ScorecardRow> by measurement
     */
    public function of(array $kpis, Period $chosen, Span $span): array
    {
        $ids = array_map(fn (MeasurementLine $kpi): int => $kpi->id, $kpis);
        $months = $this->assessments->months($ids, [$chosen, $chosen->previous()]);
        $movements = [];
        foreach ($ids as $id) {
            $movements[$id] = Movement::between($months[$id][$chosen->previous()->key()]->status($span), $months[$id][$chosen->key()]->status($span));
        }
        $overdue = $this->overdue(array_values(array_unique(array_map(fn (MeasurementLine $kpi): int => $kpi->unitId, $kpis))));
        $row = $this->maker($ids, $this->assessments->spans($ids, [$chosen], $span), $movements, $overdue, $chosen);

        return array_combine($ids, array_map($row, $kpis));
    }

    /**
     * Of some KPIs those that have weeks, in one of them, beside the week before.
     *
     * @param  list<MeasurementLine>  $kpis
     * @return array<int, ScorecardRow> by measurement
     */
    public function ofWeek(array $kpis, Period $week): array
    {
        $weekly = $this->database->table('kpis')->where('frequency', 'week')->pluck('id')->flip()->all();
        $those = array_column(array_filter($kpis, fn (MeasurementLine $kpi): bool => isset($weekly[$kpi->kpiId])), null, 'id');
        if ($those === []) {
            return [];
        }
        $month = $this->scorecard->year->endMonth($week);
        $facts = $this->kpis->whole(array_keys($those), $month->plus(-self::WEEK_REACH), $this->scorecard->year->months($month)[11]);
        $overdue = $this->overdue(array_values(array_unique(array_map(fn (MeasurementLine $kpi): int => $kpi->unitId, $those))));
        $noted = $this->notes->between(array_keys($those), $this->dates->date($week), $this->dates->date($week->plus(1)));
        $rows = [];
        foreach ($those as $id => $kpi) {
            $measurement = $facts[$id]->measurement;
            $assessed = $this->scorecard->assessPeriod($measurement, $week);
            $before = $this->scorecard->periodStatus($measurement, $week->previous());
            $rows[$id] = ScorecardRow::of(
                $kpi,
                AssessedSpan::of($facts[$id], $assessed, $this->scorecard->periodCourse($measurement, $week, $assessed), null, $assessed->status, $week, $assessed->figures->due !== [], null),
                Movement::between($before, $assessed->status),
                isset($noted[$id][$this->dates->date($week)]),
                $this->organisation->unit($kpi->unitId)->code,
                match ($overdue[$id] ?? null) {
                    null => 'none',
                    0 => 'open',
                    default => 'overdue',
                },
                $week->key(),
            );
        }

        return $rows;
    }

    /**
     * @param  list<int>  $measurements
     * @param  array<int, array<string, AssessedSpan>>  $assessed  by measurement and month
     * @param  array<int, Movement>  $movements  by measurement
     * @param  array<int, int>  $overdue  of {@see overdue()}
     * @return Closure(MeasurementLine): ScorecardRow
     */
    public function maker(array $measurements, array $assessed, array $movements, array $overdue, Period $chosen): Closure
    {
        $noted = $this->noted($measurements, $chosen);

        return fn (MeasurementLine $kpi): ScorecardRow => ScorecardRow::of(
            $kpi,
            $assessed[$kpi->id][$chosen->key()],
            $movements[$kpi->id],
            isset($noted[$kpi->id]),
            $this->organisation->unit($kpi->unitId)->code,
            match ($overdue[$kpi->id] ?? null) {
                null => 'none',
                0 => 'open',
                default => 'overdue',
            },
        );
    }

    /**
     * @param  list<int>  $units
     * @return array<int, int> how many actions should have been done by today, by measurement; none where nothing is being done
     */
    public function overdue(array $units): array
    {
        $today = CarbonImmutable::now('UTC')->toDateString();
        $overdue = [];
        foreach ($this->database->table('actions')->join('kpi_unit', 'kpi_unit.id', '=', 'kpi_unit_id')->where('state', 'open')
            ->whereRaw('unit_id = ANY(?::bigint[])', [PgArray::of($units)])->get(['kpi_unit_id', 'due']) as $action) {
            $overdue[$action->kpi_unit_id] = ($overdue[$action->kpi_unit_id] ?? 0) + (int) Deadline::isMissed($action->due, $today);
        }

        return $overdue;
    }

    /**
     * @param  list<int>  $measurements
     * @return array<int, true> measurements that have a note on the month
     */
    private function noted(array $measurements, Period $chosen): array
    {
        $ids = $this->database->table('notes')
            ->where('period', Month::date($chosen))
            ->whereRaw('kpi_unit_id = ANY(?::bigint[])', [PgArray::of($measurements)])
            ->pluck('kpi_unit_id');

        return array_fill_keys($ids->all(), true);
    }
}
