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
use App\Review\Views\Moved;
use App\Review\Views\RollUpMember;
use App\Review\Views\RollUpView;
use App\Review\Views\ScorecardGroup;
use App\Review\Views\ScorecardPage;
use App\Review\Views\ScorecardRow;
use App\Review\Views\UnitLine;
use App\Views\CountsView;
use Brick\Math\BigDecimal;
use Kybernet\Core\Calendar\Period;
use Kybernet\Core\Calendar\Span;
use Kybernet\Core\Status\Counts;
use Kybernet\Core\Status\Course;
use Kybernet\Core\Status\Movement;
use Kybernet\Core\Status\RollUp;
use Kybernet\Core\Status\Status;
use Kybernet\Core\Status\Tally;

/**
 * Lays out a unit's scorecard. An organisation shows its departments in a line each, its own KPIs and those of each
 * department; any other unit its own by theme, and the units below it in a line each.
 */
final readonly class ScorecardReader
{
    /** As the unit asks for it, or by what its KPIs have in common. */
    public const GROUPINGS = ['', 'theme', 'level', 'none'];

    private const LEVELS = ['organisational' => 'Organisational', 'departmental' => 'Departmental', 'operational' => 'Operational'];

    public function __construct(
        private AssessmentStore $assessments,
        private MeasurementStore $kpis,
        private Organisation $organisation,
        private Rights $rights,
        private ScorecardRows $rows,
    ) {}

    /** @param  string  $grouping  one of {@see GROUPINGS} */
    public function page(Unit $unit, Period $chosen, Span $span, User $user, string $grouping = '', ?Period $week = null): ScorecardPage
    {
        $below = $this->organisation->below($unit->id, $chosen);
        $kpis = $this->rights->seen($user, $this->kpis->places($below));
        $ids = array_map(fn (MeasurementPlace $kpi): int => $kpi->id, $kpis);
        $expanded = $unit->parent_id === null;
        $children = $this->organisation->children($unit->id, $chosen);
        $inRows = array_flip($expanded ? [$unit->id, ...array_map(fn (Unit $child): int => $child->id, $children)] : [$unit->id]);
        $shown = $this->rights->seen($user, $this->kpis->lines(array_keys($inRows)));
        $shownIds = array_map(fn (MeasurementLine $kpi): int => $kpi->id, $shown);

        // What moved is told against the span of the month before.
        $months = $this->assessments->months($ids, [$chosen, $chosen->previous()]);
        $assessed = $this->assessments->spans($shownIds, [$chosen], $span);
        $now = [];
        $movements = [];
        foreach ($ids as $id) {
            $now[$id] = $months[$id][$chosen->key()]->status($span);
            $movements[$id] = Movement::between($months[$id][$chosen->previous()->key()]->status($span), $now[$id]);
        }
        $rollUps = $this->rollUps($unit, $kpis, $now, $chosen);
        $overdue = array_intersect_key($this->rows->overdue($below), $now);
        $make = $this->rows->maker($shownIds, $assessed, $movements, $overdue, $chosen);
        $ofWeek = $week === null ? [] : $this->rows->ofWeek($shown, $week);
        $row = fn (MeasurementLine $kpi): ScorecardRow => $ofWeek[$kpi->id] ?? $make($kpi);
        $moved = fn (array $some): Moved => Moved::of(array_map(fn (MeasurementLine|MeasurementPlace $kpi): Movement => $movements[$kpi->id], array_values($some)));

        $groups = [];
        $lines = [];
        foreach ($this->grouped($unit, $shown, $grouping, $expanded) as $name => $own) {
            $status = RollUp::together(Tally::of(array_map(fn (MeasurementLine $kpi): array => [$now[$kpi->id], $kpi->weight], $own)))->status;
            $groups[] = new ScorecardGroup($name, null, $status->value, $moved($own), array_map($row, $own));
        }
        $rowsOf = [];
        foreach ($shown as $kpi) {
            $rowsOf[$kpi->unitId][] = $kpi;
        }
        $placesOf = [];
        foreach ($kpis as $kpi) {
            $placesOf[$kpi->unitId][] = $kpi;
        }
        foreach ($children as $child) {
            $rollUp = $rollUps[$child->id];
            $theirs = array_merge(...array_map(fn (int $inside): array => $placesOf[$inside] ?? [], $this->organisation->below($child->id, $chosen)));
            if (! $expanded || $theirs !== []) {
                $courses = array_map(fn (MeasurementLine $kpi): ?float => $assessed[$kpi->id][$chosen->key()]->course?->now, array_column($rowsOf[$child->id] ?? [], null, 'id'));
                $lines[] = new UnitLine($child->code, $child->name, $child->kind, $rollUp->status->value, CountsView::of($rollUp->counts), $moved($theirs), Course::worst($courses));
            }
            if ($expanded && isset($rowsOf[$child->id]) && $grouping === '') {
                $groups[] = new ScorecardGroup($child->name, $child->code, $rollUp->status->value, $moved($rowsOf[$child->id]), array_map($row, $rowsOf[$child->id]));
            }
        }

        return new ScorecardPage(
            $chosen->key(),
            $span->value,
            $expanded,
            $rollUps[$unit->id]->status->value,
            CountsView::of(Counts::of(array_map(fn (MeasurementLine $kpi): Status => $now[$kpi->id], $shown))),
            $moved($shown),
            array_sum(array_map(fn (int $id): int => $months[$id][$chosen->key()]->owed - $months[$id][$chosen->key()]->arrived, $ids)),
            array_sum($overdue),
            $this->rollUp($unit, $shown, $now, $rollUps, $chosen),
            $groups,
            $lines,
        );
    }

    /**
     * @param  list<MeasurementPlace>  $kpis
     * @param  array<int, Status>  $statuses
     * @return array<int, RollUp>
     */
    private function rollUps(Unit $unit, array $kpis, array $statuses, Period $month): array
    {
        $members = [];
        foreach ($kpis as $kpi) {
            ($members[$kpi->unitId] ??= new Tally)->add($statuses[$kpi->id], $kpi->weight);
        }

        return $this->organisation->tree($month)->rollUp($unit->id, $members);
    }

    /**
     * The rows in groups, but for those that are a unit below.
     *
     * @param  list<MeasurementLine>  $kpis
     * @return array<string, list<MeasurementLine>>
     */
    private function grouped(Unit $unit, array $kpis, string $grouping, bool $expanded): array
    {
        $groups = [];
        foreach ($kpis as $kpi) {
            if ($grouping !== '' || $kpi->unitId === $unit->id) {
                $groups[match ($grouping) {
                    'level' => self::LEVELS[$kpi->level] ?? $kpi->level,
                    'none' => 'All KPIs',
                    'theme' => $kpi->theme ?? 'Without a theme',
                    default => $expanded ? $unit->name : $kpi->theme ?? 'Without a theme',
                }][] = $kpi;
            }
        }

        return $grouping === 'level' ? array_filter(array_replace(array_fill_keys(self::LEVELS, []), $groups)) : $groups;
    }

    /**
     * @param  list<MeasurementLine>  $kpis
     * @param  array<int, Status>  $now
     * @param  array<int, RollUp>  $rollUps
     */
    private function rollUp(Unit $unit, array $kpis, array $now, array $rollUps, Period $month): RollUpView
    {
        $members = [];
        foreach ($kpis as $kpi) {
            if ($kpi->unitId === $unit->id) {
                $members[] = new RollUpMember($kpi->name, false, (string) $kpi->weight->stripTrailingZeros(), $now[$kpi->id]->value);
            }
        }
        foreach ($this->organisation->children($unit->id, $month) as $child) {
            $members[] = new RollUpMember($child->name, true, (string) BigDecimal::of($this->organisation->weightIn($child, $month))->stripTrailingZeros(), $rollUps[$child->id]->status->value);
        }

        return new RollUpView($this->organisation->methodIn($unit, $month)->words(), $rollUps[$unit->id]->score, $rollUps[$unit->id]->coverage, $members);
    }
}
