<?php

declare(strict_types=1);

namespace Kybernet\Core\Trend;

use Kybernet\Core\Calendar\Period;
use Kybernet\Core\Calendar\Timeline;
use Kybernet\Core\Measure\Accumulation;
use Kybernet\Core\Measure\Exact;
use Kybernet\Core\Measure\Measurement;

/**
 * The periods that are left of the year as the projection sees them: together with what is reported they gather to the
 * projected figure, as long as no bound of the KPI clamps it and no reading is missing.
 */
final class ProjectionPath
{
    /** @return array<string, Exact> figures by period; none where the method says nothing of single periods */
    public static function of(Projection $projection, Measurement $measurement, Timeline $timeline, Period $chosen): array
    {
        $position = YearPosition::of($measurement, $timeline, $chosen);
        $left = array_slice($position->periods, count($position->ended));
        if ($projection->value === null || $left === []) {
            return [];
        }
        $path = [];
        foreach ($left as $period) {
            $figure = match ($projection->method) {
                ProjectionMethod::Seasonal => self::seasonal($measurement, $position, $period),
                ProjectionMethod::RunRate => self::runRate($measurement, $position),
                ProjectionMethod::LastValue => $projection->value,
                // The line is known by its end alone.
                ProjectionMethod::TrendLine => $period === $left[count($left) - 1] ? $projection->value : null,
                default => null,
            };
            if ($figure !== null) {
                $path[$period->key()] = $figure;
            }
        }

        return $path;
    }

    /** Last year's figure, moved by what this year has been so far against the same periods of last year. */
    private static function seasonal(Measurement $measurement, YearPosition $position, Period $period): ?Exact
    {
        $earlier = $period->yearEarlier();
        $prior = $earlier === null ? null : $measurement->actuals->figure($earlier);
        $toDate = $measurement->gather($position->reported);
        $sameFigure = $position->samePriorYear($measurement);
        if ($prior === null || $toDate === null || $sameFigure === null) {
            return null;
        }

        return $measurement->definition->accumulation === Accumulation::Sum
            ? $prior->times($toDate)->dividedBy($sameFigure)
            : $prior->plus($toDate->minus($sameFigure));
    }

    private static function runRate(Measurement $measurement, YearPosition $position): ?Exact
    {
        $toDate = $measurement->gather($position->reported);

        return $measurement->definition->accumulation === Accumulation::Sum
            ? $toDate?->dividedBy(Exact::of(count($position->reported)))
            : $toDate;
    }
}
