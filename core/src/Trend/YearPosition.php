<?php

declare(strict_types=1);

namespace Kybernet\Core\Trend;

use Kybernet\Core\Calendar\Period;
use Kybernet\Core\Calendar\Timeline;
use Kybernet\Core\Measure\Absence;
use Kybernet\Core\Measure\Accumulation;
use Kybernet\Core\Measure\Exact;
use Kybernet\Core\Measure\GatheredFigures;
use Kybernet\Core\Measure\Measurement;

/**
 * How far a KPI has come in its financial year.
 */
final readonly class YearPosition
{
    /**
     * @param  Period  $year  the financial year that holds the chosen month
     * @param  list<Period>  $periods  of the year, inside the KPI's tenure
     * @param  list<Period>  $ended  those that have ended by the chosen month
     * @param  list<Period>  $reported  those of them with a reading
     */
    private function __construct(public Period $year, public array $periods, public array $ended, public array $reported) {}

    public static function of(Measurement $measurement, Timeline $timeline, Period $chosen): self
    {
        $year = $timeline->year->of($chosen);
        $frequency = $measurement->definition->frequency;
        $periods = $timeline->yearPeriods($frequency, $measurement->tenure, $year);
        $latest = $timeline->latest($frequency, $chosen);
        $ended = array_values(array_filter($periods, fn (Period $period): bool => $period->compareTo($latest) <= 0));

        return new self($year, $periods, $ended, array_values(array_filter($ended, $measurement->actuals->has(...))));
    }

    /** Periods of the year that have not ended. */
    public function left(): int
    {
        return count($this->periods) - count($this->ended);
    }

    /**
     * This year's periods a year earlier, gathered; null unless each has its reading, over units in each unit. A total
     * is brought to as many periods as this year has: a week 53 has no prior one.
     */
    public function fullPriorYear(Measurement $measurement): ?Exact
    {
        $rule = $measurement->definition->accumulation;
        $periods = array_values(array_filter(array_map(fn (Period $period): ?Period => $period->yearEarlier(), $this->periods)));
        $actuals = $measurement->actuals instanceof GatheredFigures ? $measurement->actuals->yearEarlier($this->periods) : $measurement->actuals;
        // Where nothing was to be measured, nothing is missing.
        if ($actuals === null || array_filter($periods, fn (Period $period): bool => ! $actuals->has($period) && $actuals->absence($period) !== Absence::Nothing) !== []) {
            return null;
        }
        $full = $actuals->gather(array_values(array_filter($periods, $actuals->has(...))), $rule);

        return $full === null || $rule !== Accumulation::Sum || count($periods) === count($this->periods)
            ? $full
            : $full->times(count($this->periods))->dividedBy(Exact::of(count($periods)));
    }

    /** The reported periods a year earlier, gathered, over units those that have both; null when one has no reading there. */
    public function samePriorYear(Measurement $measurement): ?Exact
    {
        $pairs = [];
        foreach ($this->reported as $period) {
            $before = $period->yearEarlier();
            if ($before === null || ! $measurement->actuals->has($before)) {
                return null;
            }
            $pairs[] = [$period, $before];
        }
        $actuals = $measurement->actuals instanceof GatheredFigures ? $measurement->actuals->alike($pairs) : $measurement->actuals;

        return $pairs === [] ? null : $actuals->gather(array_column($pairs, 1), $measurement->definition->accumulation);
    }
}
