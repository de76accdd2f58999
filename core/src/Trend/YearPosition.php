<?php

declare(strict_types=1);

namespace Kybernet\Core\Trend;

use Kybernet\Core\Calendar\Period;
use Kybernet\Core\Calendar\Timeline;
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

    public static function of(Measurement $measured, Timeline $timeline, Period $chosen): self
    {
        $year = $timeline->year->of($chosen);
        $frequency = $measured->definition->frequency;
        $periods = $timeline->yearPeriods($frequency, $measured->tenure, $year);
        $latest = $timeline->latest($frequency, $chosen);
        $ended = array_values(array_filter($periods, fn (Period $period): bool => $period->compareTo($latest) <= 0));

        return new self($year, $periods, $ended, array_values(array_filter($ended, $measured->actuals->has(...))));
    }

    /** Periods of the year that have not ended. */
    public function left(): int
    {
        return count($this->periods) - count($this->ended);
    }

    /**
     * The same periods a year earlier: what the full prior year is, like for like. A week 53 has none.
     *
     * @return list<Period>
     */
    public function yearEarlier(): array
    {
        return array_values(array_filter(array_map(fn (Period $period): ?Period => $period->yearEarlier(), $this->periods)));
    }

    /**
     * The reported periods a year earlier; null when one of them has no reading there.
     *
     * @return non-empty-list<Period>|null
     */
    public function reportedYearEarlier(Measurement $measured): ?array
    {
        $earlier = [];
        foreach ($this->reported as $period) {
            $before = $period->yearEarlier();
            if ($before === null || ! $measured->actuals->has($before)) {
                return null;
            }
            $earlier[] = $before;
        }

        return $earlier === [] ? null : $earlier;
    }
}
