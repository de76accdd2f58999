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
use Kybernet\Core\Measure\Exact;
use Kybernet\Core\Measure\GatheredFigures;
use Kybernet\Core\Measure\Kind;
use Kybernet\Core\Measure\Measurement;
use Kybernet\Core\Status\Call;
use Kybernet\Core\Status\Course;
use Kybernet\Core\Status\Evidence;
use Kybernet\Core\Status\Judge;
use Kybernet\Core\Status\Polarity;
use Kybernet\Core\Status\Reference;
use Kybernet\Core\Status\RuleSet;
use Kybernet\Core\Status\Status;
use Kybernet\Core\Trend\ControlChart;
use Kybernet\Core\Trend\Projection;
use Kybernet\Core\Trend\ProjectionMethod;
use Kybernet\Core\Trend\Range;
use Kybernet\Core\Trend\Track;
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

    public function assess(Measurement $measurement, Period $chosen, Span $span): Assessment
    {
        return $this->assessed($measurement, $this->figures($measurement, $chosen, $span), $chosen, $span);
    }

    /** One period of the KPI's own frequency, as the month sheet has it. */
    public function assessPeriod(Measurement $measurement, Period $period): Assessment
    {
        return $this->assessed($measurement, $this->single($measurement, $period), $this->year->endMonth($period), Span::Month);
    }

    /**
     * Where the figures of a span lie on the KPI's own limits; null where nothing is judged there.
     *
     * @param  Assessment  $assessed  of the same span
     */
    public function course(Measurement $measurement, Period $chosen, Span $span, Assessment $assessed): ?Course
    {
        return $this->between($measurement, $assessed, $chosen, $this->figures($measurement, $chosen->previous(), $span), $chosen->previous());
    }

    /**
     * Where a single period lies on the KPI's own limits, and where the one before it did.
     *
     * @param  Assessment  $assessed  of the period
     */
    public function periodCourse(Measurement $measurement, Period $period, Assessment $assessed): ?Course
    {
        return $this->between($measurement, $assessed, $this->year->endMonth($period), $this->single($measurement, $period->previous()), $this->year->endMonth($period->previous()));
    }

    /**
     * @param  LikeForLike  $figures  of before
     * @param  Period  $then  the month of before
     */
    private function between(Measurement $measurement, Assessment $assessed, Period $chosen, LikeForLike $figures, Period $then): ?Course
    {
        if ($measurement->definition->kind === Kind::Judged) {
            return null;
        }
        $evidence = $assessed->evidence;
        $now = $this->placed($measurement, $evidence, $evidence->actual, $assessed->figures, $assessed->computed);
        if ($now === null) {
            return null;
        }
        $before = $this->evidence($measurement, $figures, $then);
        $isAimed = $evidence->rule?->reference === Reference::Target && $evidence->reference instanceof Exact;

        return new Course(
            $now,
            $this->placed($measurement, $before, $before->actual, $figures, Judge::judge($before)),
            $this->prior($measurement, $chosen, $assessed),
            $isAimed ? $this->placed($measurement, $evidence, $evidence->reference, $assessed->figures, $assessed->computed) : null,
        );
    }

    /** Where the latest figure of what is only counted lies among the last ones; null where there are none. */
    public function track(Measurement $measurement, Period $chosen): ?Track
    {
        return $measurement->definition->polarity !== Polarity::None
            ? null
            : Track::over($measurement, $this->timeline->upTo($this->timeline->latest($measurement->definition->frequency, $chosen), Track::PERIODS));
    }

    /** Last year's figure, under reference and limits over those periods that have one. */
    private function prior(Measurement $measurement, Period $chosen, Assessment $assessed): ?float
    {
        // Under a year target the year to date is judged, whatever span is shown, and so last year's is held against it.
        $isYear = $assessed->evidence->rule?->reference === Reference::YearTarget;
        $figures = $isYear ? $this->figures($measurement, $chosen, Span::YearToDate) : $assessed->figures;
        if (! $isYear && $assessed->prior->compared === count($figures->reported)) {
            return $this->placed($measurement, $assessed->evidence, $assessed->prior->figure, $figures, $assessed->computed);
        }
        $alike = LikeForLike::gather($measurement, array_values(array_filter($figures->reported, function (Period $period) use ($measurement): bool {
            $earlier = $period->yearEarlier();

            return $earlier !== null && $measurement->actuals->has($earlier);
        })));

        $evidence = $this->evidence($measurement, $alike, $chosen);

        return $this->placed($measurement, $evidence, PriorYear::gather($measurement, $figures)->figure, $alike, Judge::judge($evidence));
    }

    /** Where a value lies that the evidence judges; null where it judges nothing. */
    private function placed(Measurement $measurement, Evidence $evidence, ?Exact $value, LikeForLike $figures, Status $judged): ?float
    {
        if ($value === null || ! $judged->isColour()) {
            return null;
        }
        $latest = $figures->due[count($figures->due) - 1];

        return Course::place($evidence, $value, fn (): ?float => $this->chart($measurement, $latest, [])?->meanRange);
    }

    /** The status alone, as it is needed in numbers: for roll-ups and ribbons. */
    public function status(Measurement $measurement, Period $chosen, Span $span): Status
    {
        $figures = $this->figures($measurement, $chosen, $span);

        return self::call($measurement, $figures, $span)->status ?? Judge::judge($this->evidence($measurement, $figures, $chosen));
    }

    /** The status of one period of the KPI's own frequency. */
    public function periodStatus(Measurement $measurement, Period $period): Status
    {
        $figures = $this->single($measurement, $period);
        // A call on a month's span is one on the period itself wherever the span holds just that period.
        $call = $period->frequency === Frequency::Week ? null : self::call($measurement, $figures, Span::Month);

        return $call->status ?? Judge::judge($this->evidence($measurement, $figures, $this->year->endMonth($period)));
    }

    /** The latest period that was due by the chosen month; null outside the KPI's tenure. */
    public function latest(Measurement $measurement, Period $chosen): ?Period
    {
        $latest = $this->timeline->latest($measurement->definition->frequency, $chosen);

        return $measurement->tenure->holds($latest, $this->year) ? $latest : null;
    }

    /** What people owe of the periods that end in the month. */
    public function owed(Measurement $measurement, Period $month): Owed
    {
        return Owed::of($measurement, $this->ending($measurement, $month));
    }

    /** The period that ends in the month and is due there; of several the last, null where none does. */
    public function endingIn(Measurement $measurement, Period $month): ?Period
    {
        $latest = $this->latest($measurement, $month);

        return $latest !== null && $this->year->endMonth($latest)->compareTo($month) === 0 ? $latest : null;
    }

    /**
     * The periods that end in the month and are due there: of a week several, of a quarter or a year often none.
     *
     * @return list<Period>
     */
    public function ending(Measurement $measurement, Period $month): array
    {
        if ($measurement->definition->frequency === Frequency::Week) {
            return $this->timeline->due(Frequency::Week, $measurement->tenure, $month, Span::Month);
        }
        $period = $this->endingIn($measurement, $month);

        return $period === null ? [] : [$period];
    }

    /** The statuses of single periods back from the latest; null outside the KPI's tenure. */
    public function past(Measurement $measurement, Period $chosen): ?Past
    {
        $latest = $this->latest($measurement, $chosen);

        return $latest === null ? null : new Past($latest, $measurement->actuals->earliest(), fn (Period $period): Status => $this->periodStatus($measurement, $period));
    }

    /** How many single periods up to the chosen one have had its colour. */
    public function streak(Measurement $measurement, Period $chosen): ?Streak
    {
        $past = $this->past($measurement, $chosen);

        return $past === null ? null : Streak::of($past);
    }

    /** Null with too few readings, and for a judged KPI. */
    public function trend(Measurement $measurement, Period $chosen): ?Trend
    {
        if ($measurement->definition->kind === Kind::Judged) {
            return null;
        }
        $periods = $this->timeline->upTo($this->timeline->latest($measurement->definition->frequency, $chosen), Trend::PERIODS);

        return Trend::over(array_map($measurement->actuals->float(...), $periods), $measurement->definition->polarity);
    }

    /** Null with too few readings, and for a judged KPI. */
    public function control(Measurement $measurement, Period $chosen): ?ControlChart
    {
        if ($measurement->definition->kind === Kind::Judged) {
            return null;
        }
        $latest = $this->timeline->latest($measurement->definition->frequency, $chosen);
        $figure = $measurement->actuals->float(...);

        return $this->chart($measurement, $latest, array_map(
            fn (Period $period): array => [$period, $figure($period)],
            $this->timeline->upTo($latest, ControlChart::SIGNAL_PERIODS),
        ));
    }

    /** What is unusual about the figure entered for a period; null where nothing is, or no figure is entered there. */
    public function unusual(Measurement $measurement, Period $period): ?Unusual
    {
        $figure = $measurement->definition->kind === Kind::Entered ? $measurement->actuals->figure($period) : null;

        return $figure === null ? null : Unusual::of($figure, $measurement->actuals->figure($period->previous()), $this->chart($measurement, $period, []));
    }

    public function projection(Measurement $measurement, Period $chosen): ?Projection
    {
        return Projection::of($measurement, $this->timeline, $chosen);
    }

    /**
     * Between what the projection ends four times in five; null where that cannot be told.
     *
     * @param  ControlChart|null  $control  of the chosen month
     */
    public function range(Measurement $measurement, Period $chosen, ?Projection $projection, ?ControlChart $control): ?Range
    {
        if ($projection === null) {
            return null;
        }
        $position = YearPosition::of($measurement, $this->timeline, $chosen);
        $latest = $this->timeline->latest($measurement->definition->frequency, $chosen);
        $isLine = $projection->method === ProjectionMethod::TrendLine;

        return Range::of(
            $projection,
            $measurement->definition,
            $position,
            $isLine ? null : $control?->meanRange,
            $isLine ? $this->trend($measurement, $chosen) : null,
            $position->periods[count($position->periods) - 1]->ordinal - $latest->ordinal,
        );
    }

    /**
     * What deserves attention, of what was worked out before; null outside the KPI's tenure.
     *
     * @param  Assessment  $assessed  on the chosen span
     * @param  bool  $isNoted  whether the latest due period has a note
     */
    public function exceptions(
        Measurement $measurement,
        Period $chosen,
        Span $span,
        Assessment $assessed,
        ?Past $past,
        ?Projection $projection,
        ?ControlChart $control,
        bool $isNoted,
    ): ?Exceptions {
        $latest = $this->latest($measurement, $chosen);

        return $latest === null || $past === null
            ? null
            : Exceptions::of($measurement, $assessed, $span, $past, $projection, $control, $latest, $isNoted);
    }

    private function assessed(Measurement $measurement, LikeForLike $figures, Period $chosen, Span $span): Assessment
    {
        $prior = PriorYear::gather($measurement, $figures);
        $evidence = $this->evidence($measurement, $figures, $chosen, $prior);

        return new Assessment(
            $figures,
            $prior,
            self::variance($measurement, $figures),
            self::change($measurement, $prior),
            self::step($measurement, $figures),
            Judge::judge($evidence),
            self::call($measurement, $figures, $span),
            $evidence,
            $measurement,
        );
    }

    /** @param  list<array{Period, float|null}>  $window  periods that signals are looked for in */
    private function chart(Measurement $measurement, Period $latest, array $window): ?ControlChart
    {
        $figure = $measurement->actuals->float(...);

        return $measurement->baseline === null
            ? ControlChart::of(array_map($figure, $this->timeline->upTo($latest->previous(), ControlChart::BASELINE_PERIODS)), $window)
            : ControlChart::of(array_map($figure, $measurement->baseline), $window, 2);
    }

    private function single(Measurement $measurement, Period $period): LikeForLike
    {
        return LikeForLike::gather($measurement, $measurement->tenure->holds($period, $this->year) ? [$period] : []);
    }

    /** What there is on a span, not judged. */
    public function figures(Measurement $measurement, Period $chosen, Span $span): LikeForLike
    {
        return LikeForLike::gather($measurement, $this->timeline->due($measurement->definition->frequency, $measurement->tenure, $chosen, $span));
    }

    private function evidence(Measurement $measurement, LikeForLike $figures, Period $chosen, ?PriorYear $prior = null): Evidence
    {
        if ($figures->due === []) {
            return Evidence::nothingDue($measurement, 'nothing was due');
        }
        if ($figures->expected === []) {
            return Evidence::nothingDue($measurement, $measurement->actuals->whyNone($figures->due) ?? 'nothing was due');
        }
        $rule = $measurement->ruleAt($this->year->beginMonth($figures->due[count($figures->due) - 1]));
        if ($rule === null || $measurement->definition->polarity === Polarity::None) {
            return Evidence::withoutRule($measurement, $figures);
        }

        return match ($rule->reference) {
            Reference::Target => Evidence::againstTarget($measurement, $rule, $figures),
            Reference::PriorYear => Evidence::againstPriorYear($measurement, $rule, $figures, $prior ?? PriorYear::gather($measurement, $figures)),
            Reference::Recent => Evidence::againstRecent($measurement, $rule, $figures),
            Reference::YearTarget => $this->yearToDate($measurement, $rule, $figures, $chosen),
            Reference::None => Evidence::byLevels($measurement, $rule, $figures),
        };
    }

    private function yearToDate(Measurement $measurement, RuleSet $rule, LikeForLike $figures, Period $chosen): Evidence
    {
        $position = YearPosition::of($measurement, $this->timeline, $chosen);
        $target = $measurement->targets->ofYear($position->year, $position->periods, $measurement->definition->accumulation)?->target;

        return Evidence::againstYearTarget(
            $measurement,
            $rule,
            $figures,
            $this->figures($measurement, $chosen, Span::YearToDate),
            $target === null ? null : $rule->pace->asks($target, $measurement, $position),
        );
    }

    private static function call(Measurement $measurement, LikeForLike $figures, Span $span): ?Call
    {
        if ($measurement->calls === [] || $figures->due === []) {
            return null;
        }
        $last = $figures->due[count($figures->due) - 1];
        foreach ($measurement->calls as $call) {
            if ($call->holds($span, $last, $figures->actual)) {
                return $call;
            }
        }

        return null;
    }

    private static function variance(Measurement $measurement, LikeForLike $figures): ?Variance
    {
        $actual = $figures->comparedActual;
        if ($figures->compared === 0 || $actual === null || $figures->goal === null) {
            return null;
        }

        return match (true) {
            $figures->goal->band !== null => Variance::fromBand($actual, $figures->goal->band),
            $figures->goal->target !== null => Variance::between($actual, $figures->goal->target, $measurement->definition->polarity),
            default => null,
        };
    }

    private static function change(Measurement $measurement, PriorYear $prior): ?Variance
    {
        if ($prior->comparedActual === null || $prior->figure === null || $measurement->definition->kind === Kind::Judged) {
            return null;
        }

        return $measurement->definition->polarity === Polarity::Band
            ? Variance::withinBand($prior->comparedActual, $prior->figure, $prior->banded)
            : Variance::between($prior->comparedActual, $prior->figure, $measurement->definition->polarity);
    }

    private static function step(Measurement $measurement, LikeForLike $figures): ?Variance
    {
        if (count($figures->due) !== 1 || $figures->actual === null || $measurement->definition->kind === Kind::Judged) {
            return null;
        }
        [$period, $before] = [$figures->due[0], $figures->due[0]->previous()];
        // Over units: only those that have both.
        $actuals = $measurement->actuals instanceof GatheredFigures ? $measurement->actuals->alike([[$period, $before]]) : $measurement->actuals;
        [$actual, $previous] = [$actuals->figure($period), $actuals->figure($before)];

        return $actual === null || $previous === null ? null : Variance::between($actual, $previous, $measurement->definition->polarity);
    }
}
