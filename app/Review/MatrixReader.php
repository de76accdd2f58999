<?php

declare(strict_types=1);

namespace App\Review;

use App\Figures\MeasurementLine;
use App\Figures\MeasurementPlace;
use App\Figures\MeasurementStore;
use App\Kept\AssessmentStore;
use App\Models\Unit;
use App\Models\User;
use App\Organisation\Organisation;
use App\Organisation\Rights;
use App\Review\Views\MatrixCell;
use App\Review\Views\MatrixLine;
use App\Review\Views\MatrixPage;
use Brick\Math\BigDecimal;
use Kybernet\Core\Calendar\Period;
use Kybernet\Core\Calendar\Span;
use Kybernet\Core\Status\RollUp;
use Kybernet\Core\Status\Status;
use Kybernet\Core\Status\Tally;

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
        private MeasurementStore $kpis,
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

        [$rows, $heads, $cells, $status] = match (true) {
            $crossing === 'kpis-months' => $this->kpisByMonths($kpis, $columns, $span),
            $crossing === 'units-kpis' => $this->unitsByKpis($units, $kpis, $chosen, $span),
            $isRollUp => $this->rollUps($unit, $units, $this->rights->seen($user, $this->kpis->places($this->organisation->belowIn($unit->id, $columns))), $columns, $span),
            default => $this->unitsByMonths($units, array_values(array_filter($kpis, fn (MeasurementLine $each): bool => $each->code === $kpi)), $columns, $span),
        };

        return new MatrixPage($crossing, $kpi, $rows, $heads, $cells, $status?->value, $offered);
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
     * @param  list<MeasurementLine>  $kpis
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
                $lines[$kpi->code] ??= new MatrixLine($kpi->code, $kpi->name, $kpi->measure, null, null);
            }
        }

        return array_values(array_filter($lines, fn (MatrixLine $line): bool => $times[$line->key] > 1 || count($units) === 1));
    }

    /**
     * @param  list<MeasurementLine>  $kpis
     * @param  list<Period>  $months
     * @return array{list<MatrixLine>, list<MatrixLine>, list<list<MatrixCell|null>>, Status|null} rows, columns, cells, and all of them together where that says something
     */
    private function kpisByMonths(array $kpis, array $months, Span $span): array
    {
        $cells = $this->cells($kpis, $months, $span);

        return [
            array_map(fn (MeasurementLine $kpi, array $line): MatrixLine => $this->overMonths($kpi->code, $kpi->name, $kpi->measure, $line), $kpis, $cells),
            $this->monthHeads($months, $cells, $kpis),
            $cells,
            null,
        ];
    }

    /**
     * @param  list<Unit>  $units
     * @param  list<MeasurementLine>  $kpis  one in several units
     * @param  list<Period>  $months
     * @return array{list<MatrixLine>, list<MatrixLine>, list<list<MatrixCell|null>>, Status|null} rows, columns, cells, and all of them together where that says something
     */
    private function unitsByMonths(array $units, array $kpis, array $months, Span $span): array
    {
        $of = [];
        foreach ($kpis as $kpi) {
            $of[$kpi->unitId] = $kpi;
        }
        $measuring = array_values(array_filter($units, fn (Unit $unit): bool => isset($of[$unit->id])));
        $measurement = array_map(fn (Unit $unit): MeasurementLine => $of[$unit->id], $measuring);
        $cells = $this->cells($measurement, $months, $span);

        return [
            array_map(fn (Unit $unit, array $line): MatrixLine => $this->overMonths($unit->code, $unit->name, '', $line), $measuring, $cells),
            $this->monthHeads($months, $cells, $measurement),
            $cells,
            null,
        ];
    }

    /**
     * @param  list<Unit>  $units
     * @param  list<MeasurementLine>  $kpis
     * @return array{list<MatrixLine>, list<MatrixLine>, list<list<MatrixCell|null>>, Status|null} rows, columns, cells, and all of them together where that says something
     */
    private function unitsByKpis(array $units, array $kpis, Period $month, Span $span): array
    {
        $of = [];
        foreach ($kpis as $kpi) {
            $of[$kpi->unitId][$kpi->code] = $kpi;
        }
        $offered = $this->shared($kpis, array_flip(array_map(fn (Unit $unit): int => $unit->id, $units)));
        $wanted = array_fill_keys(array_map(fn (MatrixLine $column): string => $column->key, $offered), true);
        $shown = array_values(array_filter($kpis, fn (MeasurementLine $kpi): bool => isset($wanted[$kpi->code])));
        $judged = array_combine(array_map(fn (MeasurementLine $kpi): int => $kpi->id, $shown), array_column($this->cells($shown, [$month], $span), 0));
        $rows = [];
        $cells = [];
        $over = new Tally;
        $columns = array_map(fn (): Tally => new Tally, $offered);
        foreach ($units as $unit) {
            $members = new Tally;
            $line = [];
            foreach ($offered as $at => $column) {
                $kpi = $of[$unit->id][$column->key] ?? null;
                $line[] = $cell = $kpi === null ? null : $judged[$kpi->id];
                if ($kpi !== null && $cell !== null) {
                    foreach ([$members, $columns[$at], $over] as $tally) {
                        $tally->add(Status::from($cell->status), $kpi->weight);
                    }
                }
            }
            if (array_filter($line) !== []) {
                $rows[] = MatrixLine::of($unit->code, $unit->name, '', RollUp::of($this->organisation->methodIn($unit, $month), $members));
                $cells[] = $line;
            }
        }
        $heads = array_map(fn (MatrixLine $column, Tally $members): MatrixLine => MatrixLine::of($column->key, $column->name, $column->measure, RollUp::together($members)), $offered, $columns);

        return [$rows, $heads, $cells, RollUp::together($over)->status];
    }

    /**
     * @param  list<Unit>  $units
     * @param  list<MeasurementPlace>  $kpis
     * @param  list<Period>  $months
     * @return array{list<MatrixLine>, list<MatrixLine>, list<list<MatrixCell|null>>, Status|null} rows, columns, cells, and all of them together where that says something
     */
    private function rollUps(Unit $unit, array $units, array $kpis, array $months, Span $span): array
    {
        $cells = array_fill(0, count($units), []);
        $heads = [];
        foreach ($this->assessments->counted($kpis, $months, $span) as $month => $counted) {
            $rolled = $this->organisation->tree(Period::parse($month))->rollUp($unit->id, $counted->units);
            $heads[] = MatrixLine::of($month, '', '', $rolled[$unit->id]);
            foreach ($units as $row => $each) {
                // One that was moved here later had no place below in that month.
                $cells[$row][] = isset($rolled[$each->id]) ? new MatrixCell(null, $month, $rolled[$each->id]->status->value, false, null) : null;
            }
        }

        return [array_map(fn (Unit $each, array $line): MatrixLine => $this->overMonths($each->code, $each->name, '', $line), $units, $cells), $heads, $cells, null];
    }

    /**
     * @param  list<MeasurementLine>  $kpis
     * @param  list<Period>  $months
     * @return list<list<MatrixCell>> a row for each KPI
     */
    private function cells(array $kpis, array $months, Span $span): array
    {
        $assessed = $this->assessments->spans(array_map(fn (MeasurementLine $kpi): int => $kpi->id, $kpis), $months, $span);

        return array_map(fn (MeasurementLine $kpi): array => array_map(function (Period $month) use ($kpi, $assessed): MatrixCell {
            $at = $assessed[$kpi->id][$month->key()];

            return new MatrixCell($kpi->id, $month->key(), $at->status, $at->called, $at->actual);
        }, $months), $kpis);
    }

    /**
     * @param  list<Period>  $months
     * @param  list<list<MatrixCell>>  $cells
     * @param  list<MeasurementLine>  $kpis  one a row
     * @return list<MatrixLine>
     */
    private function monthHeads(array $months, array $cells, array $kpis): array
    {
        return array_map(function (Period $month, int $at) use ($cells, $kpis): MatrixLine {
            $members = new Tally;
            foreach ($kpis as $row => $kpi) {
                $members->add(Status::from($cells[$row][$at]->status), $kpi->weight);
            }

            return MatrixLine::of($month->key(), '', '', RollUp::together($members));
        }, $months, array_keys($months));
    }

    /**
     * A row of months: it has a score to be ordered by, but no colour, for a year is not the sum of its months.
     *
     * @param  list<MatrixCell|null>  $cells
     */
    private function overMonths(string $key, string $name, string $measure, array $cells): MatrixLine
    {
        $members = Tally::of(array_map(fn (MatrixCell $cell): array => [Status::from($cell->status), BigDecimal::one()], array_values(array_filter($cells, fn (?MatrixCell $cell): bool => $cell !== null))));

        return new MatrixLine($key, $name, $measure, null, RollUp::together($members)->score);
    }
}
