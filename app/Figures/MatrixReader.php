<?php

declare(strict_types=1);

namespace App\Figures;

use App\Http\Resources\MatrixCell;
use App\Http\Resources\MatrixLine;
use App\Http\Resources\MatrixPage;
use App\Models\Unit;
use App\Models\User;
use App\Policies\Rights;
use Brick\Math\BigDecimal;
use Kybernet\Core\Calendar\Period;
use Kybernet\Core\Calendar\Span;
use Kybernet\Core\Status\Counts;
use Kybernet\Core\Status\RollUp;
use Kybernet\Core\Status\RollUpMethod;
use Kybernet\Core\Status\Status;

/**
 * Crosses two of units, KPIs and months for one of the third.
 */
final readonly class MatrixReader
{
    public const CROSSINGS = ['units-months', 'units-kpis', 'kpis-months'];

    /** The newest month first come, and how many of them can be asked for. */
    public const MONTHS = [12, 24, 36];

    public function __construct(
        private AssessmentStore $assessments,
        private KpiStore $kpis,
        private Organisation $organisation,
        private Rights $rights,
    ) {}

    /**
     * @param  string  $crossing  one of {@see CROSSINGS}
     * @param  string  $kpi  code of the KPI that is crossed with units and months; blank for the roll-up of the units
     * @param  int  $months  how many, up to the chosen one
     */
    public function page(Unit $unit, Period $chosen, Span $span, string $crossing, string $kpi, int $months, User $user): MatrixPage
    {
        $columns = $chosen->plus(1 - $months)->to($chosen);
        $units = $this->units($unit, $crossing, $user);
        $isRollUp = $crossing === 'units-months' && $kpi === '';
        $kpis = $this->rights->seen($user, $this->kpis->lines(array_map(fn (Unit $each): int => $each->id, $units)));
        $inUnits = array_flip(array_map(fn (Unit $each): int => $each->id, $units));
        $offered = $this->shared($kpis, $inUnits);

        [$rows, $heads, $cells] = match (true) {
            $crossing === 'kpis-months' => $this->kpisByMonths($kpis, $columns, $span),
            $crossing === 'units-kpis' => $this->unitsByKpis($units, $kpis, $chosen, $span),
            $isRollUp => $this->rollUps($unit, $units, $this->rights->seen($user, $this->kpis->places($this->organisation->below($unit->id))), $columns, $span),
            default => $this->unitsByMonths($units, array_values(array_filter($kpis, fn (KpiLine $each): bool => $each->code === $kpi)), $columns, $span),
        };

        return new MatrixPage($crossing, $kpi, $rows, $heads, $cells, $this->over(array_merge(...$cells)), $offered);
    }

    /** @return list<Unit> directly below the unit, or the unit itself where nothing is below it */
    private function units(Unit $unit, string $crossing, User $user): array
    {
        $seen = array_flip($this->rights->units($user));
        $children = array_values(array_filter($this->organisation->children($unit->id), fn (Unit $child): bool => isset($seen[$child->id])));

        return $crossing === 'kpis-months' || $children === [] ? [$unit] : $children;
    }

    /**
     * The KPIs that more than one of the units measures; all of them where there is but one unit.
     *
     * @param  list<KpiLine>  $kpis
     * @param  array<int, int>  $units
     * @return list<MatrixLine>
     */
    private function shared(array $kpis, array $units): array
    {
        $times = [];
        $lines = [];
        foreach ($kpis as $kpi) {
            if (isset($units[$kpi->unitId])) {
                $times[$kpi->code] = ($times[$kpi->code] ?? 0) + 1;
                $lines[$kpi->code] ??= new MatrixLine($kpi->code, $kpi->name, $kpi->measure, null);
            }
        }

        return array_values(array_filter($lines, fn (MatrixLine $line): bool => $times[$line->key] > 1 || count($units) === 1));
    }

    /**
     * @param  list<KpiLine>  $kpis
     * @param  list<Period>  $months
     * @return array{list<MatrixLine>, list<MatrixLine>, list<list<MatrixCell|null>>}
     */
    private function kpisByMonths(array $kpis, array $months, Span $span): array
    {
        $cells = $this->cells($kpis, $months, $span);

        return [
            array_map(fn (KpiLine $kpi): MatrixLine => new MatrixLine($kpi->code, $kpi->name, $kpi->measure, null), $kpis),
            $this->monthHeads($months, $cells, $kpis),
            $cells,
        ];
    }

    /**
     * @param  list<Unit>  $units
     * @param  list<KpiLine>  $kpis  one in several units
     * @param  list<Period>  $months
     * @return array{list<MatrixLine>, list<MatrixLine>, list<list<MatrixCell|null>>}
     */
    private function unitsByMonths(array $units, array $kpis, array $months, Span $span): array
    {
        $of = [];
        foreach ($kpis as $kpi) {
            $of[$kpi->unitId] = $kpi;
        }
        $measuring = array_values(array_filter($units, fn (Unit $unit): bool => isset($of[$unit->id])));
        $cells = $this->cells(array_map(fn (Unit $unit): KpiLine => $of[$unit->id], $measuring), $months, $span);

        return [
            array_map(fn (Unit $unit): MatrixLine => new MatrixLine($unit->code, $unit->name, '', null), $measuring),
            $this->monthHeads($months, $cells, array_map(fn (Unit $unit): KpiLine => $of[$unit->id], $measuring)),
            $cells,
        ];
    }

    /**
     * @param  list<Unit>  $units
     * @param  list<KpiLine>  $kpis
     * @return array{list<MatrixLine>, list<MatrixLine>, list<list<MatrixCell|null>>}
     */
    private function unitsByKpis(array $units, array $kpis, Period $month, Span $span): array
    {
        $of = [];
        foreach ($kpis as $kpi) {
            $of[$kpi->unitId][$kpi->code] = $kpi;
        }
        $offered = $this->shared($kpis, array_flip(array_map(fn (Unit $unit): int => $unit->id, $units)));
        $cells = [];
        $rows = [];
        $wanted = array_fill_keys(array_map(fn (MatrixLine $column): string => $column->key, $offered), true);
        $shown = array_values(array_filter($kpis, fn (KpiLine $kpi): bool => isset($wanted[$kpi->code])));
        $judged = array_combine(array_map(fn (KpiLine $kpi): int => $kpi->id, $shown), array_column($this->cells($shown, [$month], $span), 0));
        foreach ($units as $unit) {
            $line = array_map(fn (MatrixLine $column): ?MatrixCell => $judged[$of[$unit->id][$column->key]->id ?? 0] ?? null, $offered);
            if (array_filter($line) !== []) {
                $rows[] = new MatrixLine($unit->code, $unit->name, '', RollUp::of(
                    Organisation::method($unit),
                    $this->members($line, array_map(fn (MatrixLine $column): ?KpiLine => $of[$unit->id][$column->key] ?? null, $offered)),
                    Counts::of([]),
                )->status->value);
                $cells[] = $line;
            }
        }
        $heads = array_map(fn (MatrixLine $column, int $at): MatrixLine => new MatrixLine($column->key, $column->name, $column->measure, $this->over(array_column($cells, $at))), $offered, array_keys($offered));

        return [$rows, $heads, $cells];
    }

    /**
     * @param  list<Unit>  $units
     * @param  list<KpiPlace>  $kpis
     * @param  list<Period>  $months
     * @return array{list<MatrixLine>, list<MatrixLine>, list<list<MatrixCell|null>>}
     */
    private function rollUps(Unit $unit, array $units, array $kpis, array $months, Span $span): array
    {
        $cells = [];
        $heads = [];
        $assessed = $this->assessments->months(array_map(fn (KpiPlace $kpi): int => $kpi->id, $kpis), $months);
        foreach ($months as $at => $month) {
            $members = [];
            foreach ($kpis as $kpi) {
                $members[$kpi->unitId][] = [$assessed[$kpi->id][$month->key()]->status($span), $kpi->weight];
            }
            $rolled = $this->organisation->tree()->rollUp($unit->id, $members);
            $heads[] = new MatrixLine($month->key(), '', '', $rolled[$unit->id]->status->value);
            foreach ($units as $row => $each) {
                $cells[$row][$at] = new MatrixCell(null, $month->key(), $rolled[$each->id]->status->value, false, null);
            }
        }

        return [array_map(fn (Unit $each): MatrixLine => new MatrixLine($each->code, $each->name, '', null), $units), $heads, array_values(array_map(array_values(...), $cells))];
    }

    /**
     * @param  list<KpiLine>  $kpis
     * @param  list<Period>  $months
     * @return list<list<MatrixCell>> a row for each KPI
     */
    private function cells(array $kpis, array $months, Span $span): array
    {
        $assessed = $this->assessments->spans(array_map(fn (KpiLine $kpi): int => $kpi->id, $kpis), $months, $span);

        return array_map(fn (KpiLine $kpi): array => array_map(function (Period $month) use ($kpi, $assessed): MatrixCell {
            $at = $assessed[$kpi->id][$month->key()];

            return new MatrixCell($kpi->id, $month->key(), $at->status, $at->called, $at->actual);
        }, $months), $kpis);
    }

    /**
     * @param  list<Period>  $months
     * @param  list<list<MatrixCell>>  $cells
     * @param  list<KpiLine>  $kpis  one a row
     * @return list<MatrixLine>
     */
    private function monthHeads(array $months, array $cells, array $kpis): array
    {
        return array_map(fn (Period $month, int $at): MatrixLine => new MatrixLine(
            $month->key(),
            '',
            '',
            RollUp::of(RollUpMethod::weighted(), $this->members(array_column($cells, $at), $kpis), Counts::of([]))->status->value,
        ), $months, array_keys($months));
    }

    /**
     * @param  list<MatrixCell|null>  $cells
     * @param  list<KpiLine|null>  $kpis  one a cell
     * @return list<array{Status, BigDecimal}>
     */
    private function members(array $cells, array $kpis): array
    {
        $members = [];
        foreach ($cells as $at => $cell) {
            if ($cell !== null) {
                $members[] = [Status::from($cell->status), $kpis[$at]->weight ?? BigDecimal::one()];
            }
        }

        return $members;
    }

    /** @param  list<MatrixCell|null>  $cells */
    private function over(array $cells): string
    {
        return RollUp::of(RollUpMethod::weighted(), $this->members($cells, []), Counts::of([]))->status->value;
    }
}
