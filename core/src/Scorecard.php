<?php

declare(strict_types=1);

namespace Kybernet\Core;

use Kybernet\Core\Attention\Exceptions;
use Kybernet\Core\Attention\Owed;
use Kybernet\Core\Attention\Past;
use Kybernet\Core\Attention\Streak;
use Kybernet\Core\Attention\Unusual;
use Kybernet\Core\Calendar\FinancialYear;
use Kybernet\Core\Calendar\Frequency;
use Kybernet\Core\Calendar\Period;
use Kybernet\Core\Calendar\Span;
use Kybernet\Core\Calendar\Timeline;
use Kybernet\Core\Compare\LikeForLike;
use Kybernet\Core\Compare\PriorYear;
use Kybernet\Core\Compare\Variance;
use Kybernet\Core\Measure\GatheredFigures;
use Kybernet\Core\Measure\Kind;
use Kybernet\Core\Measure\Measurement;
use Kybernet\Core\Status\Call;
use Kybernet\Core\Status\Evidence;
use Kybernet\Core\Status\Judge;
use Kybernet\Core\Status\Polarity;
use Kybernet\Core\Status\Reference;
use Kybernet\Core\Status\RuleSet;
use Kybernet\Core\Status\Status;
use Kybernet\Core\Trend\ControlChart;
use Kybernet\Core\Trend\Projection;
use Kybernet\Core\Trend\Trend;
use Kybernet\Core\Trend\YearPosition;

/**
 * The front door: definitions and figures in, assessments out. It composes the rules and holds none.
 */
final class Scorecard
{
    public readonly Timeline $timeline;

    public function __construct(public readonly FinancialYear $year)
    {
        $this->timeline = new Timeline($year);
    }

    public function assess(Measurement $measured, Period $chosen, Span $span): Assessment
    {
        return $this->assessed($measured, $this->figures($measured, $chosen, $span), $chosen, $span);
    }

    /** One period of the KPI's own frequency, as the month sheet has it. */
    public function assessPeriod(Measurement $measured, Period $period): Assessment
    {
        return $this->assessed($measured, $this->single($measured, $period), $this->year->endMonth($period), Span::Month);
    }

    /** The status alone, as it is needed in numbers: for roll-ups and ribbons. */
    public function status(Measurement $measured, Period $chosen, Span $span): Status
    {
        $figures = $this->figures($measured, $chosen, $span);

        return self::call($measured, $figures, $span)->status ?? Judge::judge($this->evidence($measured, $figures, $chosen));
    }

    /** The status of one period of the KPI's own frequency. */
    public function periodStatus(Measurement $measured, Period $period): Status
    {
        $figures = $this->single($measured, $period);
        // A call on a month's span is one on the period itself wherever the span holds just that period.
        $call = $period->frequency === Frequency::Week ? null : self::call($measured, $figures, Span::Month);

        return $call->status ?? Judge::judge($this->evidence($measured, $figures, $this->year->endMonth($period)));
    }

    /** The latest period that was due by the chosen month; null outside the KPI's tenure. */
    public function latest(Measurement $measured, Period $chosen): ?Period
    {
        $latest = $this->timeline->latest($measured->definition->frequency, $chosen);

        return $measured->tenure->holds($latest, $this->year) ? $latest : null;
    }

    /** What people owe of the periods that end in the month. */
    public function owed(Measurement $measured, Period $month): Owed
    {
        return Owed::of($measured, $this->ending($measured, $month));
    }

    /** The period that ends in the month and is due there; of several the last, null where none does. */
    public function endingIn(Measurement $measured, Period $month): ?Period
    {
        $latest = $this->latest($measured, $month);

        return $latest !== null && $this->year->endMonth($latest)->compareTo($month) === 0 ? $latest : null;
    }

    /**
     * The periods that end in the month and are due there: of a week several, of a quarter or a year often none.
     *
     * @return list<Period>
     */
    public function ending(Measurement $measured, Period $month): array
    {
        if ($measured->definition->frequency === Frequency::Week) {
            return $this->timeline->due(Frequency::Week, $measured->tenure, $month, Span::Month);
        }
        $period = $this->endingIn($measured, $month);

        return $period === null ? [] : [$period];
    }

    /** The statuses of single periods back from the latest; null outside the KPI's tenure. */
    public function past(Measurement $measured, Period $chosen): ?Past
    {
        $latest = $this->latest($measured, $chosen);

        return $latest === null ? null : new Past($latest, $measured->actuals->earliest(), fn (Period $period): Status => $this->periodStatus($measured, $period));
    }

    /** How many single periods up to the chosen one have had its colour. */
    public function streak(Measurement $measured, Period $chosen): ?Streak
    {
        $past = $this->past($measured, $chosen);

        return $past === null ? null : Streak::of($past);
    }

    /** Null with too few readings, and for a judged KPI. */
    public function trend(Measurement $measured, Period $chosen): ?Trend
    {
        if ($measured->definition->kind === Kind::Judged) {
            return null;
        }
        $periods = $this->timeline->upTo($this->timeline->latest($measured->definition->frequency, $chosen), Trend::PERIODS);

        return Trend::over(array_map($measured->actuals->float(...), $periods), $measured->definition->polarity);
    }

    /** Null with too few readings, and for a judged KPI. */
    public function control(Measurement $measured, Period $chosen): ?ControlChart
    {
        if ($measured->definition->kind === Kind::Judged) {
            return null;
        }
        $latest = $this->timeline->latest($measured->definition->frequency, $chosen);
        $figure = $measured->actuals->float(...);

        return $this->chart($measured, $latest, array_map(
            fn (Period $period): array => [$period, $figure($period)],
            $this->timeline->upTo($latest, ControlChart::SIGNAL_PERIODS),
        ));
    }

    /** What is unusual about the figure entered for a period; null where nothing is, or no figure is entered there. */
    public function unusual(Measurement $measured, Period $period): ?Unusual
    {
        $figure = $measured->definition->kind === Kind::Entered ? $measured->actuals->figure($period) : null;

        return $figure === null ? null : Unusual::of($figure, $measured->actuals->figure($period->previous()), $this->chart($measured, $period, []));
    }

    public function projection(Measurement $measured, Period $chosen): ?Projection
    {
        return Projection::of($measured, $this->timeline, $chosen);
    }

    /**
     * What deserves attention, of what was worked out before; null outside the KPI's tenure.
     *
     * @param  Assessment  $assessed  on the chosen span
     * @param  bool  $isNoted  whether the latest due period has a note
     */
    public function exceptions(
        Measurement $measured,
        Period $chosen,
        Span $span,
        Assessment $assessed,
        ?Past $past,
        ?Projection $projection,
        ?ControlChart $control,
        bool $isNoted,
    ): ?Exceptions {
        $latest = $this->latest($measured, $chosen);

        return $latest === null || $past === null
            ? null
            : Exceptions::of($measured, $assessed, $span, $past, $projection, $control, $latest, $isNoted);
    }

    private function assessed(Measurement $measured, LikeForLike $figures, Period $chosen, Span $span): Assessment
    {
        $prior = PriorYear::gather($measured, $figures);
        $evidence = $this->evidence($measured, $figures, $chosen, $prior);

        return new Assessment(
            $figures,
            $prior,
            self::variance($measured, $figures),
            self::change($measured, $prior),
            self::step($measured, $figures),
            Judge::judge($evidence),
            self::call($measured, $figures, $span),
            $evidence,
            $measured,
        );
    }

    /** @param  list<array{Period, float|null}>  $window  periods that signals are looked for in */
    private function chart(Measurement $measured, Period $latest, array $window): ?ControlChart
    {
        $figure = $measured->actuals->float(...);

        return $measured->baseline === null
            ? ControlChart::of(array_map($figure, $this->timeline->upTo($latest->previous(), ControlChart::BASELINE_PERIODS)), $window)
            : ControlChart::of(array_map($figure, $measured->baseline), $window, 2);
    }

    private function single(Measurement $measured, Period $period): LikeForLike
    {
        return LikeForLike::gather($measured, $measured->tenure->holds($period, $this->year) ? [$period] : []);
    }

    private function figures(Measurement $measured, Period $chosen, Span $span): LikeForLike
    {
        return LikeForLike::gather($measured, $this->timeline->due($measured->definition->frequency, $measured->tenure, $chosen, $span));
    }

    private function evidence(Measurement $measured, LikeForLike $figures, Period $chosen, ?PriorYear $prior = null): Evidence
    {
        if ($figures->due === []) {
            return Evidence::nothingDue($measured, 'nothing was due');
        }
        $rule = $measured->ruleAt($this->year->beginMonth($figures->due[count($figures->due) - 1]));
        if ($rule === null || $measured->definition->polarity === Polarity::None) {
            return Evidence::withoutRule($measured, $figures);
        }

        return match ($rule->reference) {
            Reference::Target => Evidence::againstTarget($measured, $rule, $figures),
            Reference::PriorYear => Evidence::againstPriorYear($measured, $rule, $figures, $prior ?? PriorYear::gather($measured, $figures)),
            Reference::Recent => Evidence::againstRecent($measured, $rule, $figures),
            Reference::YearTarget => $this->yearToDate($measured, $rule, $figures, $chosen),
            Reference::None => Evidence::byLevels($measured, $rule, $figures),
        };
    }

    private function yearToDate(Measurement $measured, RuleSet $rule, LikeForLike $figures, Period $chosen): Evidence
    {
        $position = YearPosition::of($measured, $this->timeline, $chosen);
        $target = $measured->targets->ofYear($position->year, $position->periods, $measured->definition->accumulation)?->target;

        return Evidence::againstYearTarget(
            $measured,
            $rule,
            $figures,
            $this->figures($measured, $chosen, Span::YearToDate),
            $target === null ? null : $rule->pace->asks($target, $measured, $position),
        );
    }

    private static function call(Measurement $measured, LikeForLike $figures, Span $span): ?Call
    {
        if ($measured->calls === [] || $figures->due === []) {
            return null;
        }
        $last = $figures->due[count($figures->due) - 1];
        foreach ($measured->calls as $call) {
            if ($call->holds($span, $last, $figures->actual)) {
                return $call;
            }
        }

        return null;
    }

    private static function variance(Measurement $measured, LikeForLike $figures): ?Variance
    {
        $actual = $figures->comparedActual;
        if ($figures->compared === 0 || $actual === null || $figures->goal === null) {
            return null;
        }

        return match (true) {
            $figures->goal->band !== null => Variance::fromBand($actual, $figures->goal->band),
            $figures->goal->target !== null => Variance::between($actual, $figures->goal->target, $measured->definition->polarity),
            default => null,
        };
    }

    private static function change(Measurement $measured, PriorYear $prior): ?Variance
    {
        if ($prior->comparedActual === null || $prior->figure === null || $measured->definition->kind === Kind::Judged) {
            return null;
        }

        return $measured->definition->polarity === Polarity::Band
            ? Variance::withinBand($prior->comparedActual, $prior->figure, $prior->banded)
            : Variance::between($prior->comparedActual, $prior->figure, $measured->definition->polarity);
    }

    private static function step(Measurement $measured, LikeForLike $figures): ?Variance
    {
        if (count($figures->due) !== 1 || $figures->actual === null || $measured->definition->kind === Kind::Judged) {
            return null;
        }
        [$period, $before] = [$figures->due[0], $figures->due[0]->previous()];
        // Over units: only those that have both.
        $actuals = $measured->actuals instanceof GatheredFigures ? $measured->actuals->alike([[$period, $before]]) : $measured->actuals;
        [$actual, $previous] = [$actuals->figure($period), $actuals->figure($before)];

        return $actual === null || $previous === null ? null : Variance::between($actual, $previous, $measured->definition->polarity);
    }
}
