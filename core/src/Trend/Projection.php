<?php

declare(strict_types=1);

namespace Kybernet\Core\Trend;

use Brick\Math\BigDecimal;
use Kybernet\Core\Calendar\Period;
use Kybernet\Core\Calendar\Timeline;
use Kybernet\Core\Measure\Accumulation;
use Kybernet\Core\Measure\Band;
use Kybernet\Core\Measure\Definition;
use Kybernet\Core\Measure\Exact;
use Kybernet\Core\Measure\FormulaFigures;
use Kybernet\Core\Measure\GatheredFigures;
use Kybernet\Core\Measure\Kind;
use Kybernet\Core\Measure\Measurement;
use Kybernet\Core\Measure\NoValue;
use Kybernet\Core\Records\Take;
use Kybernet\Core\Status\Evidence;
use Kybernet\Core\Status\Judge;
use Kybernet\Core\Status\Reference;
use Kybernet\Core\Status\Status;

/**
 * Where a KPI will stand at the end of its financial year if nothing changes, and what it would take.
 */
final readonly class Projection
{
    private function __construct(
        /** `seasonal`, `run-rate`, `trend-line`, `last-value`, `so-far` or `operands` */
        public ProjectionMethod $method,
        /** at the year end, inside the KPI's bounds; null when a formula gives none */
        public ?Exact $value,
        /** null when there is none, and for a band */
        public ?Exact $yearTarget,
        /** the band of the year, where the KPI has one */
        public ?Band $yearBand,
        public Status $status,
        /** year to date ÷ year target × 100; totals only */
        public ?Exact $progressPercent,
        /** periods of the year that have ended ÷ all of them × 100 */
        public Exact $elapsedPercent,
        /** what each period that is left needs to reach the year target; totals and means only */
        public ?Exact $requiredPerPeriod,
        public Evidence $evidence,
    ) {}

    /** Null when nothing is reported this year, for a judged KPI, and for one that counts different values: years do not add up from them. */
    public static function of(Measurement $measurement, Timeline $timeline, Period $chosen): ?self
    {
        $position = YearPosition::of($measurement, $timeline, $chosen);
        if ($position->reported === [] || $measurement->definition->kind === Kind::Judged || $measurement->definition->counted?->take === Take::Distinct) {
            return null;
        }
        $rule = $measurement->definition->accumulation;
        /** @var \WeakMap<Measurement, array{Exact|null}> $known */
        $known = new \WeakMap;
        [$method, $value] = self::project($measurement, $position, $timeline, $chosen, $known);
        $toDate = $measurement->gather($position->reported);
        $goal = $measurement->targets->ofYear($position->year, $position->periods, $rule);
        $yearTarget = $goal?->target;
        $evidence = self::evidence($measurement, $position, $chosen, $value, $goal->band ?? $yearTarget);

        return new self(
            $method,
            $value,
            $yearTarget,
            $goal?->band,
            Judge::judge($evidence),
            $rule === Accumulation::Sum && $toDate !== null && $yearTarget !== null && ! $yearTarget->isZero()
                ? $toDate->times(100)->dividedBy($yearTarget)
                : null,
            Exact::mean(Exact::of(count($position->ended) * 100), max(1, count($position->periods))),
            $toDate === null || $yearTarget === null ? null : self::required($rule, $position, $toDate, $yearTarget),
            $evidence,
        );
    }

    /**
     * @param  \WeakMap<Measurement, array{Exact|null}>  $known  what was projected already of formulas over formulas
     * @return array{ProjectionMethod, Exact|null} the method and the value, inside the KPI's bounds
     */
    private static function project(Measurement $measurement, YearPosition $position, Timeline $timeline, Period $chosen, \WeakMap $known): array
    {
        $formula = match (true) {
            $measurement->actuals instanceof FormulaFigures => $measurement->actuals,
            $measurement->actuals instanceof GatheredFigures => $measurement->actuals->ratio(),
            default => null,
        };
        [$method, $value] = match ($measurement->definition->accumulation) {
            Accumulation::Sum, Accumulation::Mean => self::bySeason($measurement, $position) ?? [ProjectionMethod::RunRate, self::byRunRate($measurement, $position)],
            Accumulation::Latest => self::byTrend($measurement, $position, $timeline, $chosen),
            Accumulation::Maximum, Accumulation::Minimum => [ProjectionMethod::SoFar, $measurement->gather($position->reported)],
            // Ratios whose mean over units was taken have no operands of their own: they are levels.
            Accumulation::Recompute => $formula === null
                ? self::bySeason($measurement, $position) ?? [ProjectionMethod::RunRate, self::byRunRate($measurement, $position)]
                : [ProjectionMethod::Operands, self::byOperands($formula, $timeline, $chosen, $known)],
        };

        return [$method, $value === null ? null : self::clamp($value, $measurement->definition, count($position->periods))];
    }

    /** @return array{ProjectionMethod, Exact}|null null unless the prior year is complete and every reported period has its prior one */
    private static function bySeason(Measurement $measurement, YearPosition $position): ?array
    {
        $rule = $measurement->definition->accumulation;
        $full = $position->fullPriorYear($measurement);
        $sameFigure = $full === null ? null : $position->samePriorYear($measurement);
        $toDate = $measurement->gather($position->reported);
        if ($full === null || $toDate === null || $sameFigure === null) {
            return null;
        }
        if ($rule !== Accumulation::Sum) {
            return [ProjectionMethod::Seasonal, $toDate->plus($full->minus($sameFigure))];
        }

        return $sameFigure->isZero() ? null : [ProjectionMethod::Seasonal, $toDate->times($full)->dividedBy($sameFigure)];
    }

    private static function byRunRate(Measurement $measurement, YearPosition $position): ?Exact
    {
        $toDate = $measurement->gather($position->reported);

        return $toDate === null || $measurement->definition->accumulation !== Accumulation::Sum
            ? $toDate
            : $toDate->times(count($position->periods))->dividedBy(Exact::of(count($position->reported)));
    }

    /**
     * The trend's line at the year's last period when it is rising or falling, else the last value.
     *
     * @return array{ProjectionMethod, Exact|null}
     */
    private static function byTrend(Measurement $measurement, YearPosition $position, Timeline $timeline, Period $chosen): array
    {
        $latest = $timeline->latest($measurement->definition->frequency, $chosen);
        $periods = $timeline->upTo($latest, Trend::PERIODS);
        $trend = Trend::over(array_map($measurement->actuals->float(...), $periods), $measurement->definition->polarity);
        if ($trend === null || $trend->direction === Direction::Steady) {
            return [ProjectionMethod::LastValue, $measurement->gather($position->reported)];
        }
        $last = $position->periods[count($position->periods) - 1];

        return [ProjectionMethod::TrendLine, self::line(array_map($measurement->actuals->figure(...), $periods), Trend::PERIODS + $last->ordinal - $latest->ordinal)];
    }

    /**
     * The least-squares line through the figures, at a later place: on exact decimals, as it is judged.
     *
     * @param  list<Exact|null>  $figures  at places 1, 2, 3 …
     */
    private static function line(array $figures, int $place): Exact
    {
        $known = array_filter($figures);
        $n = count($known);
        $sumX = $sumXX = 0;
        $sumY = $sumXY = Exact::of(0);
        foreach ($known as $index => $figure) {
            $x = $index + 1;
            $sumX += $x;
            $sumXX += $x * $x;
            $sumY = $sumY->plus($figure);
            $sumXY = $sumXY->plus($figure->times($x));
        }
        $slope = $sumXY->times($n)->minus($sumY->times($sumX))->dividedBy(Exact::of($n * $sumXX - $sumX ** 2));

        return $sumY->plus($slope->times($n * $place - $sumX))->dividedBy(Exact::of($n));
    }

    /**
     * Each operand projected on its own readings, then the formula.
     *
     * @param  \WeakMap<Measurement, array{Exact|null}>  $known
     */
    private static function byOperands(FormulaFigures $figures, Timeline $timeline, Period $chosen, \WeakMap $known): ?Exact
    {
        $formula = $figures->formula();
        $projected = [];
        $isThere = false;
        foreach ($formula->operands as $key => $operand) {
            $measurement = $figures->operands()[$key] ?? null;
            $position = $measurement === null ? null : YearPosition::of($measurement, $timeline, $chosen);
            if ($measurement === null || $position === null || $position->reported === []) {
                $projected[$key] = $operand->orZero ? Exact::of(0) : null;

                continue;
            }
            $isThere = true;
            $known[$measurement] ??= [self::project($measurement, $position, $timeline, $chosen, $known)[1]];
            $projected[$key] = $known[$measurement][0];
        }
        try {
            return $isThere ? $formula->evaluate($projected) : null;
        } catch (NoValue) {
            return null;
        }
    }

    private static function required(Accumulation $rule, YearPosition $position, Exact $toDate, Exact $yearTarget): ?Exact
    {
        $left = $position->left();
        if ($left === 0) {
            return null;
        }
        $n = count($position->reported);

        return match ($rule) {
            Accumulation::Sum => $yearTarget->minus($toDate)->dividedBy(Exact::of($left)),
            Accumulation::Mean => $yearTarget->times($n + $left)->minus($toDate->times($n))->dividedBy(Exact::of($left)),
            default => null,
        };
    }

    /** What the projected value is judged by: the rule set in force in the chosen month, for all periods of the year. */
    private static function evidence(Measurement $measurement, YearPosition $position, Period $chosen, ?Exact $value, Exact|Band|null $goal): Evidence
    {
        $rule = $measurement->ruleAt($chosen);

        return Evidence::projected($measurement->definition, $rule, $value, match ($rule?->reference) {
            Reference::Target, Reference::YearTarget => $goal,
            Reference::PriorYear => $position->fullPriorYear($measurement),
            default => null,
        }, max(1, count($position->periods)));
    }

    /** A statistic of the year's figure, inside the KPI's bounds as the value is. */
    public static function bounded(float $figure, Definition $kpi, int $periods): float
    {
        $factor = $kpi->accumulation->limitFactor(max(1, $periods));
        $low = $kpi->min === null ? -INF : $kpi->min->toFloat() * $factor;
        $high = $kpi->max === null ? INF : $kpi->max->toFloat() * $factor;

        return max($low, min($high, $figure));
    }

    private static function clamp(Exact $value, Definition $kpi, int $periods): Exact
    {
        $factor = $kpi->accumulation->limitFactor(max(1, $periods));
        $bound = fn (?BigDecimal $limit): ?Exact => $limit === null ? null : Exact::of($limit)->times($factor);

        return $value->clamp($bound($kpi->min), $bound($kpi->max));
    }
}
