<?php

declare(strict_types=1);

namespace App\Figures;

use App\Http\Resources\ClosingItem;
use App\Http\Resources\ClosingPage;
use App\Http\Resources\ClosingUnit;
use App\Http\Resources\Shown;
use App\Models\Unit;
use App\Models\User;
use App\Policies\Rights;
use App\Support\Month;
use App\Support\PeriodDate;
use App\Support\PgArray;
use Illuminate\Database\Connection;
use Kybernet\Core\Attention\Exceptions;
use Kybernet\Core\Calendar\Period;
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
        private KpiStore $kpis,
        private Organisation $organisation,
        private Rights $rights,
        private NoteRows $notes,
        private PeriodDate $dates,
        private Connection $database,
    ) {}

    public function page(Unit $unit, Period $month, User $user): ClosingPage
    {
        $units = $this->organisation->below($unit->id);
        $lines = [];
        foreach ($this->rights->seen($user, $this->kpis->inUnits($units, $month->plus(-self::MONTHS_BACK), $month)) as $kpi) {
            foreach ($this->scorecard->ending($kpi->measurement, $month) as $period) {
                $lines[] = [$kpi, $period];
            }
        }
        $submitted = $this->submitted($lines);
        $notes = $this->noted($lines);
        $counts = [];
        $missing = $unexplained = $unusual = [];
        foreach ($lines as [$kpi, $period]) {
            $has = $kpi->measurement->actuals->has($period);
            $date = $this->dates->date($period);
            if ($kpi->isTyped()) {
                $counts[$kpi->unitId][0] = ($counts[$kpi->unitId][0] ?? 0) + 1;
                $counts[$kpi->unitId][1] = ($counts[$kpi->unitId][1] ?? 0) + ($has ? 1 : 0);
                $counts[$kpi->unitId][2] = ($counts[$kpi->unitId][2] ?? 0) + (isset($submitted[$kpi->id][$date]) ? 1 : 0);
                if (! $has) {
                    $missing[] = $this->item($kpi, $period, 'no reading');
                }
            }
            $status = $has ? $this->scorecard->periodStatus($kpi->measurement, $period) : null;
            if ($status !== null && Exceptions::wantsNote($status) && ($notes[$kpi->id][$date]->text ?? '') === '') {
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
        );
    }

    private function item(KpiFacts $kpi, Period $period, string $words): ClosingItem
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

    /**
     * @param  list<array{KpiFacts, Period}>  $lines
     * @return array<int, array<string, true>> by KPI-unit and date
     */
    private function submitted(array $lines): array
    {
        $submitted = [];
        foreach ($this->database->table('readings')->where('state', 'submitted')
            ->whereRaw('kpi_unit_id = ANY(?::bigint[])', [$this->ids($lines)])->whereBetween('period', $this->range($lines))
            ->get(['kpi_unit_id', 'period']) as $reading) {
            $submitted[$reading->kpi_unit_id][$reading->period] = true;
        }

        return $submitted;
    }

    /**
     * @param  list<array{KpiFacts, Period}>  $lines
     * @return array<int, array<string, \stdClass>>
     */
    private function noted(array $lines): array
    {
        return $this->notes->between(array_values(array_unique(array_map(fn (array $line): int => $line[0]->id, $lines))), ...$this->range($lines));
    }

    /** @param  list<array{KpiFacts, Period}>  $lines */
    private function ids(array $lines): string
    {
        return PgArray::of(array_map(fn (array $line): int => $line[0]->id, $lines));
    }

    /**
     * @param  list<array{KpiFacts, Period}>  $lines
     * @return array{string, string}
     */
    private function range(array $lines): array
    {
        $dates = array_map(fn (array $line): string => $this->dates->date($line[1]), $lines);

        return $dates === [] ? ['9999-12-31', '0001-01-01'] : [min($dates), max($dates)];
    }
}
