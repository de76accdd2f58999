<?php

declare(strict_types=1);

namespace App\Sources;

use App\Figures\CountedRows;
use App\Sources\Views\GoalTried;
use Brick\Math\BigDecimal;
use Kybernet\Core\Calendar\Period;
use Kybernet\Core\Calendar\Span;
use Kybernet\Core\Measure\Exact;
use Kybernet\Core\Measure\Goal;
use Kybernet\Core\Measure\Measurement;
use Kybernet\Core\Measure\SameTargets;
use Kybernet\Core\Measure\TargetFrom;
use Kybernet\Core\Records\Condition;
use Kybernet\Core\Records\Count;
use Kybernet\Core\Records\Counted;
use Kybernet\Core\Records\Operator;
use Kybernet\Core\Records\Take;
use Kybernet\Core\Scorecard;
use Kybernet\Core\Status\Status;

/**
 * Tries another goal on the cases of a figure: how many would meet it, and which colours that would give.
 */
final readonly class GoalTrial
{
    private const PERIODS = 12;

    public function __construct(private CountedRows $rows, private Scorecard $scorecard) {}

    public function try(Behind $behind, CaseAim $aim, BigDecimal $goal, Period $month, Span $span): GoalTried
    {
        $share = $this->share($behind, $aim, $goal);
        $whole = $this->rows->tally($behind->set)->each($share, [array_map($behind->year->days(...), $behind->periods)], $behind->names === null ? null : [0 => $behind->names])[0][0] ?? new Count;
        $measured = $aim->met === null
            ? $behind->kpi->measurement->with($behind->kpi->measurement->actuals, new SameTargets(Goal::of(Exact::of($goal), null, false, TargetFrom::Set) ?? throw new \LogicException('A goal that is typed is one.')))
            : $this->counting($behind, $share, $month);
        $status = $this->scorecard->assess($measured, $month, $span)->computed;
        $timeline = $this->scorecard->timeline;
        $frequency = $measured->definition->frequency;
        $last = array_map(fn (Period $period): Status => $this->scorecard->periodStatus($measured, $period), $timeline->upTo($timeline->latest($frequency, $month), self::PERIODS));

        return new GoalTried(
            (string) $goal, $whole->met, $whole->records, $whole->figure(Take::Share)?->rounded(1)->__toString(), $status->value,
            count(array_filter($last, fn (Status $each): bool => $each === $status)), count($last),
        );
    }

    /** The cases that would meet the goal, as a share. */
    private function share(Behind $behind, CaseAim $aim, BigDecimal $goal): Counted
    {
        $counted = $behind->counted;
        $met = $counted->met;
        if ($aim->met === null) {
            $met = [Condition::read(['of' => $aim->of->text, ($aim->isAtMost ? Operator::AtMost : Operator::AtLeast)->value => (string) $goal], $behind->set->set())];
        } else {
            $comparison = $met[$aim->met]->comparisons[0];
            $met[$aim->met] = Condition::read(['of' => $comparison->source->text, $comparison->operator->value => (string) $goal], $behind->set->set());
        }
        // Only those whose value is known can be held against a goal.
        $where = $aim->met === null ? [...$counted->where, Condition::read(['of' => $aim->of->text, 'empty' => false], $behind->set->set())] : $counted->where;

        return new Counted($counted->records, Take::Share, null, null, array_values($met), $counted->datedBy, null, $counted->unit, $where, $counted->from);
    }

    /** The KPI as it would be counted, from a year and more of its periods. */
    private function counting(Behind $behind, Counted $counted, Period $month): Measurement
    {
        $measurement = $behind->kpi->measurement;
        $frequency = $measurement->definition->frequency;
        $latest = $this->scorecard->timeline->latest($frequency, $month);
        $periods = $this->scorecard->timeline->upTo($latest, self::PERIODS * 2 + 1);

        return $measurement->with($this->rows->tried($counted, $behind->set, $frequency, $periods, $behind->names), $measurement->targets);
    }
}
