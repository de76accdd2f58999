<?php

declare(strict_types=1);

namespace App\Figures;

use App\Http\Resources\MatrixCell;
use App\Http\Resources\MatrixLine;
use App\Http\Resources\MatrixPage;
use App\Http\Resources\Shown;
use App\Models\Unit;
use App\Models\User;
use App\Policies\Rights;
use Brick\Math\BigDecimal;
use Kybernet\Core\Calendar\Period;
use Kybernet\Core\Calendar\Span;
use Kybernet\Core\Scorecard;
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
        private Scorecard $scorecard,
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
        $first = $crossing === 'units-kpis' ? $chosen : $columns[0];
        $units = $this->units($unit, $crossing, $user);
        $isRollUp = $crossing === 'units-months' && $kpi === '';
        $wanted = $isRollUp ? $this->organisation->below($unit->id) : array_map(fn (Unit $each): int => $each->id, $units);
        $facts = $this->rights->seen($user, $this->kpis->inUnits($crossing === 'kpis-months' ? $this->organisation->below($unit->id) : $wanted, $span->firstMonth($first, $this->scorecard->year), $chosen));
        $inUnits = array_flip(array_map(fn (Unit $each): int => $each->id, $units));
        $offered = $this->shared($facts, $inUnits);

        [$rows, $heads, $cells] = match (true) {
            $crossing === 'kpis-months' => $this->kpisByMonths(array_values(array_filter($facts, fn (KpiFacts $each): bool => $each->unitId === $unit->id)), $columns, $span),
            $crossing === 'units-kpis' => $this->unitsByKpis($units, $facts, $chosen, $span),
            $isRollUp => $this->rollUps($unit, $units, $facts, $columns, $span),
            default => $this->unitsByMonths($units, array_values(array_filter($facts, fn (KpiFacts $each): bool => $each->code === $kpi)), $columns, $span),
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
     * @param  list<KpiFacts>  $facts
     * @param  array<int, int>  $units
     * @return list<MatrixLine>
     */
    private function shared(array $facts, array $units): array
    {
        $times = [];
        $lines = [];
        foreach ($facts as $kpi) {
            if (isset($units[$kpi->unitId])) {
                $times[$kpi->code] = ($times[$kpi->code] ?? 0) + 1;
                $lines[$kpi->code] ??= new MatrixLine($kpi->code, $kpi->name, $kpi->measurement->definition->measure, null);
            }
        }

        return array_values(array_filter($lines, fn (MatrixLine $line): bool => $times[$line->key] > 1 || count($units) === 1));
    }

    /**
     * @param  list<KpiFacts>  $kpis
     * @param  list<Period>  $months
     * @return array{list<MatrixLine>, list<MatrixLine>, list<list<MatrixCell|null>>}
     */
    private function kpisByMonths(array $kpis, array $months, Span $span): array
    {
        $cells = array_map(fn (KpiFacts $kpi): array => array_map(fn (Period $month): MatrixCell => $this->cell($kpi, $month, $span), $months), $kpis);

        return [
            array_map(fn (KpiFacts $kpi): MatrixLine => new MatrixLine($kpi->code, $kpi->name, $kpi->measurement->definition->measure, null), $kpis),
            $this->monthHeads($months, $cells, $kpis),
            $cells,
        ];
    }

    /**
     * @param  list<Unit>  $units
     * @param  list<KpiFacts>  $kpis  one in several units
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
        $cells = array_map(fn (Unit $unit): array => array_map(fn (Period $month): MatrixCell => $this->cell($of[$unit->id], $month, $span), $months), $measuring);

        return [
            array_map(fn (Unit $unit): MatrixLine => new MatrixLine($unit->code, $unit->name, '', null), $measuring),
            $this->monthHeads($months, $cells, array_map(fn (Unit $unit): KpiFacts => $of[$unit->id], $measuring)),
            $cells,
        ];
    }

    /**
     * @param  list<Unit>  $units
     * @param  list<KpiFacts>  $facts
     * @return array{list<MatrixLine>, list<MatrixLine>, list<list<MatrixCell|null>>}
     */
    private function unitsByKpis(array $units, array $facts, Period $month, Span $span): array
    {
        $of = [];
        $kpis = [];
        foreach ($facts as $kpi) {
            $of[$kpi->unitId][$kpi->code] = $kpi;
            $kpis[$kpi->code] ??= $kpi;
        }
        $offered = $this->shared($facts, array_flip(array_map(fn (Unit $unit): int => $unit->id, $units)));
        $cells = [];
        $rows = [];
        foreach ($units as $unit) {
            $line = array_map(fn (MatrixLine $column): ?MatrixCell => isset($of[$unit->id][$column->key]) ? $this->cell($of[$unit->id][$column->key], $month, $span) : null, $offered);
            if (array_filter($line) !== []) {
                $rows[] = new MatrixLine($unit->code, $unit->name, '', RollUp::of(
                    Organisation::method($unit),
                    $this->members($line, array_map(fn (MatrixLine $column): ?KpiFacts => $of[$unit->id][$column->key] ?? null, $offered)),
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
     * @param  list<KpiFacts>  $facts
     * @param  list<Period>  $months
     * @return array{list<MatrixLine>, list<MatrixLine>, list<list<MatrixCell|null>>}
     */
    private function rollUps(Unit $unit, array $units, array $facts, array $months, Span $span): array
    {
        $cells = [];
        $heads = [];
        foreach ($months as $at => $month) {
            $members = [];
            foreach ($facts as $kpi) {
                $members[$kpi->unitId][] = [$this->scorecard->status($kpi->measurement, $month, $span), $kpi->weight];
            }
            $rolled = $this->organisation->tree()->rollUp($unit->id, $members);
            $heads[] = new MatrixLine($month->key(), '', '', $rolled[$unit->id]->status->value);
            foreach ($units as $row => $each) {
                $cells[$row][$at] = new MatrixCell(null, $month->key(), $rolled[$each->id]->status->value, false, null);
            }
        }

        return [array_map(fn (Unit $each): MatrixLine => new MatrixLine($each->code, $each->name, '', null), $units), $heads, array_values(array_map(array_values(...), $cells))];
    }

    private function cell(KpiFacts $kpi, Period $month, Span $span): MatrixCell
    {
        $assessed = $this->scorecard->assess($kpi->measurement, $month, $span);

        return new MatrixCell($kpi->id, $month->key(), $assessed->status->value, $assessed->call !== null, Shown::of($assessed->figures->actual, $kpi));
    }

    /**
     * @param  list<Period>  $months
     * @param  list<list<MatrixCell>>  $cells
     * @param  list<KpiFacts>  $kpis  one a row
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
     * @param  list<KpiFacts|null>  $kpis  one a cell
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
