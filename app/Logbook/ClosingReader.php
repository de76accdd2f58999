<?php

declare(strict_types=1);

namespace App\Logbook;

use App\Figures\CountedRows;
use App\Figures\MeasurementFacts;
use App\Figures\MeasurementStore;
use App\Logbook\Views\ClosingItem;
use App\Logbook\Views\ClosingPage;
use App\Logbook\Views\ClosingUnit;
use App\Logbook\Views\LateLine;
use App\Models\Unit;
use App\Models\User;
use App\Organisation\Organisation;
use App\Organisation\Rights;
use App\Support\Month;
use App\Support\PeriodDate;
use App\Views\Shown;
use Illuminate\Database\Connection;
use Kybernet\Core\Attention\Owed;
use Kybernet\Core\Calendar\Period;
use Kybernet\Core\Records\RecordFigures;
use Kybernet\Core\Scorecard;

/**
 * The check list of a month: what is missing, unexplained or unusual, and how far each unit is.
 */
final readonly class ClosingReader
{
    /** The usual range of a figure looks back two years. */
    private const MONTHS_BACK = 12;

    public function __construct(
        private Scorecard $scorecard,
        private MeasurementStore $kpis,
        private Organisation $organisation,
        private Rights $rights,
        private EndingPeriods $ending,
        private Connection $database,
        private CountedRows $counted,
        private PeriodDate $dates,
    ) {}

    public function page(Unit $unit, Period $month, User $user): ClosingPage
    {
        $units = $this->organisation->below($unit->id);
        $lines = $this->ending->lines($this->rights->seen($user, $this->kpis->inUnits($units, $month->plus(-self::MONTHS_BACK), $month)), $month);
        $counts = [];
        $missing = $unexplained = $unusual = [];
        foreach ($this->ending->kept($lines) as $index => [$reading, $note]) {
            [$kpi, $period] = $lines[$index];
            $has = $kpi->measurement->actuals->has($period);
            if ($kpi->isTyped()) {
                $counts[$kpi->unitId][0] = ($counts[$kpi->unitId][0] ?? 0) + 1;
                $counts[$kpi->unitId][1] = ($counts[$kpi->unitId][1] ?? 0) + ($has ? 1 : 0);
                $counts[$kpi->unitId][2] = ($counts[$kpi->unitId][2] ?? 0) + (($reading->state ?? '') === 'submitted' ? 1 : 0);
                if (! $has) {
                    $missing[] = $this->item($kpi, $period, 'no reading');
                }
            }
            $status = $has ? $this->scorecard->periodStatus($kpi->measurement, $period) : null;
            if ($status !== null && Owed::lacksReason($status, $note?->text)) {
                $unexplained[] = $this->item($kpi, $period, "{$status->inPassing()}, without a reason");
            }
            $question = $this->scorecard->unusual($kpi->measurement, $period);
            if ($question !== null) {
                $unusual[] = $this->item($kpi, $period, $question->question($kpi->measurement->definition->decimals));
            }
        }

        return new ClosingPage(
            $month->key(),
            $month->compareTo(Month::running()) < 0,
            $user->can('close', $unit),
            $this->units($unit, $month, $counts),
            $missing,
            $unexplained,
            $unusual,
            $this->late($lines),
        );
    }

    /**
     * @param  list<array{MeasurementFacts, Period}>  $lines
     * @return list<LateLine>
     */
    private function late(array $lines): array
    {
        $would = $this->counted->late(array_map(fn (array $line): int => $line[0]->id, $lines));
        $late = [];
        foreach ($lines as [$kpi, $period]) {
            $count = $would[$kpi->id][$this->dates->date($period)] ?? null;
            $actuals = $kpi->measurement->actuals;
            if ($count === null || ! $actuals instanceof RecordFigures) {
                continue;
            }
            $unit = $this->organisation->unit($kpi->unitId);
            $stands = $actuals->counts->in($period);
            $late[] = new LateLine(
                $kpi->id, $kpi->code, $kpi->name, $unit->code, $unit->name, $period->key(), $count->records - $stands->records, $this->counted->noun($actuals->definition),
                Shown::of($actuals->counted($period), $kpi), Shown::of($count->figure($actuals->definition->take), $kpi),
            );
        }

        return $late;
    }

    private function item(MeasurementFacts $kpi, Period $period, string $words): ClosingItem
    {
        $unit = $this->organisation->unit($kpi->unitId);

        return new ClosingItem(
            $kpi->id,
            $kpi->code,
            $kpi->name,
            $unit->code,
            $unit->name,
            $kpi->owner,
            $period->key(),
            $this->scorecard->periodStatus($kpi->measurement, $period)->value,
            Shown::of($kpi->measurement->actuals->figure($period), $kpi),
            $kpi->measurement->definition->measure,
            $words,
        );
    }

    /**
     * @param  array<int, array<int, int>>  $counts  expected, reported, submitted, by unit
     * @return list<ClosingUnit>
     */
    private function units(Unit $top, Period $month, array $counts): array
    {
        $closed = $this->database->table('period_states')->leftJoin('users', 'users.id', '=', 'period_states.closed_by')
            ->where('period', Month::date($month))->get(['period_states.unit_id', 'closed_at', 'users.name as by'])->keyBy('unit_id');
        $depths = [$top->id => 0];

        return array_map(function (int $id) use ($counts, $closed, &$depths): ClosingUnit {
            $unit = $this->organisation->unit($id);
            $depths[$id] ??= 1 + ($depths[$unit->parent_id] ?? 0);
            $state = $closed->get($id);

            return new ClosingUnit(
                $unit->code,
                $unit->name,
                $depths[$id],
                $counts[$id][0] ?? 0,
                $counts[$id][1] ?? 0,
                $counts[$id][2] ?? 0,
                $state !== null,
                $state?->closed_at,
                $state?->by,
            );
        }, $this->organisation->below($top->id));
    }
}
