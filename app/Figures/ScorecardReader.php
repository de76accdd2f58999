<?php

declare(strict_types=1);

namespace App\Figures;

use App\Http\Resources\CountsResource;
use App\Http\Resources\Moved;
use App\Http\Resources\ScorecardGroup;
use App\Http\Resources\ScorecardPage;
use App\Http\Resources\ScorecardRow;
use App\Http\Resources\UnitLine;
use App\Models\Unit;
use App\Support\Month;
use Illuminate\Database\Connection;
use Kybernet\Core\Calendar\Period;
use Kybernet\Core\Calendar\Span;
use Kybernet\Core\Scorecard;
use Kybernet\Core\Status\Counts;
use Kybernet\Core\Status\Movement;
use Kybernet\Core\Status\RollUp;
use Kybernet\Core\Status\Status;

/**
 * Lays out a unit's scorecard. An organisation shows its own KPIs and those of each department; any other unit its
 * own by theme, and the units below it in a line each.
 */
final readonly class ScorecardReader
{
    public function __construct(
        private Scorecard $scorecard,
        private KpiStore $kpis,
        private Organisation $organisation,
        private Connection $database,
    ) {}

    public function page(Unit $unit, Period $chosen, Span $span): ScorecardPage
    {
        $below = $this->organisation->below($unit->id);
        // Two years and a month: the longest span, moved back a year, and the month before it.
        $kpis = $this->kpis->inUnits($below, $chosen->plus(-24), $chosen);
        $now = $this->statuses($kpis, $chosen, $span);
        $before = $this->statuses($kpis, $chosen->previous(), $span);
        $rollUps = $this->rollUps($unit, $kpis, $now);
        $rollUpsBefore = $this->rollUps($unit, $kpis, $before);
        $noted = $this->noted($kpis, $chosen);

        $expanded = $unit->parent_id === null;
        $children = $this->organisation->children($unit->id);
        $groups = [];
        $lines = [];
        $movements = [];
        foreach ($kpis as $kpi) {
            $movements[$kpi->id] = Movement::between($before[$kpi->id], $now[$kpi->id]);
        }
        /** @param  list<KpiFacts>  $rows */
        $group = fn (string $name, ?string $code, Status $status, array $rows): ScorecardGroup => new ScorecardGroup(
            $name,
            $code,
            $status->value,
            Moved::of(array_values(array_map(fn (KpiFacts $kpi): Movement => $movements[$kpi->id], $rows))),
            array_values(array_map(fn (KpiFacts $kpi): ScorecardRow => ScorecardRow::of(
                $kpi,
                $this->scorecard->assess($kpi->measurement, $chosen, $span),
                $movements[$kpi->id],
                $span === Span::Month ? $now[$kpi->id] : $this->scorecard->status($kpi->measurement, $chosen, Span::Month),
                $chosen,
                isset($noted[$kpi->id]),
            ), $rows)),
        );

        foreach ($this->byTheme($unit, $kpis, $expanded) as $name => $rows) {
            $status = RollUp::weighted(array_map(fn (KpiFacts $kpi): array => [$now[$kpi->id], $kpi->weight], $rows), Counts::of([]))->status;
            $groups[] = $group($name, null, $status, $rows);
        }
        foreach ($children as $child) {
            $rows = array_values(array_filter($kpis, fn (KpiFacts $kpi): bool => $kpi->unitId === $child->id));
            if ($expanded && $rows !== []) {
                $groups[] = $group($child->name, $child->code, $rollUps[$child->id]->status, $rows);
            } elseif (! $expanded) {
                $inside = array_flip($this->organisation->below($child->id));
                $lines[] = new UnitLine(
                    $child->code,
                    $child->name,
                    $child->kind,
                    $rollUps[$child->id]->status->value,
                    CountsResource::of($rollUps[$child->id]->counts),
                    Moved::of(array_values(array_map(
                        fn (KpiFacts $kpi): Movement => $movements[$kpi->id],
                        array_filter($kpis, fn (KpiFacts $kpi): bool => isset($inside[$kpi->unitId])),
                    ))),
                    $rollUpsBefore[$child->id]->status->value,
                );
            }
        }

        $shown = array_merge(...array_map(fn (ScorecardGroup $each): array => $each->rows, $groups));

        return new ScorecardPage(
            $chosen->key(),
            $span->value,
            $rollUps[$unit->id]->status->value,
            $rollUps[$unit->id]->score,
            $rollUps[$unit->id]->coverage,
            CountsResource::of(Counts::of(array_map(fn (ScorecardRow $row): Status => $now[$row->id], $shown))),
            Moved::of(array_map(fn (ScorecardRow $row): Movement => $movements[$row->id], $shown)),
            count(array_filter($shown, fn (ScorecardRow $row): bool => $row->wake[count($row->wake) - 1]->actual === null)),
            $groups,
            $lines,
        );
    }

    /**
     * @param  list<KpiFacts>  $kpis
     * @return array<int, Status>
     */
    private function statuses(array $kpis, Period $chosen, Span $span): array
    {
        $statuses = [];
        foreach ($kpis as $kpi) {
            $statuses[$kpi->id] = $this->scorecard->status($kpi->measurement, $chosen, $span);
        }

        return $statuses;
    }

    /**
     * @param  list<KpiFacts>  $kpis
     * @param  array<int, Status>  $statuses
     * @return array<int, RollUp>
     */
    private function rollUps(Unit $unit, array $kpis, array $statuses): array
    {
        $members = [];
        foreach ($kpis as $kpi) {
            $members[$kpi->unitId][] = [$statuses[$kpi->id], $kpi->weight];
        }

        return $this->organisation->tree()->rollUp($unit->id, $members);
    }

    /**
     * @param  list<KpiFacts>  $kpis
     * @return array<string, list<KpiFacts>>
     */
    private function byTheme(Unit $unit, array $kpis, bool $together): array
    {
        $groups = [];
        foreach ($kpis as $kpi) {
            if ($kpi->unitId === $unit->id) {
                $groups[$together ? $unit->name : $kpi->theme ?? 'Without a theme'][] = $kpi;
            }
        }

        return $groups;
    }

    /**
     * @param  list<KpiFacts>  $kpis
     * @return array<int, true> KPI-units that have a note on the month
     */
    private function noted(array $kpis, Period $chosen): array
    {
        $ids = $this->database->table('notes')
            ->where('period', Month::date($chosen))
            ->whereIn('kpi_unit_id', array_map(fn (KpiFacts $kpi): int => $kpi->id, $kpis))
            ->pluck('kpi_unit_id');

        return array_fill_keys($ids->all(), true);
    }
}
