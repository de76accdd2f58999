<?php

declare(strict_types=1);

namespace App\Review;

use App\Figures\MeasurementFacts;
use App\Figures\MeasurementStore;
use App\Review\Views\ChartPoint;
use App\Review\Views\ControlLimits;
use App\Review\Views\Headline;
use App\Review\Views\KpiCourse;
use App\Review\Views\ProjectionView;
use App\Review\Views\TrendLine;
use Kybernet\Core\Assessment;
use Kybernet\Core\Calendar\Frequency;
use Kybernet\Core\Calendar\Period;
use Kybernet\Core\Calendar\Span;
use Kybernet\Core\Measure\Exact;
use Kybernet\Core\Measure\Kind;
use Kybernet\Core\Measure\Measurement;
use Kybernet\Core\Measure\Series;
use Kybernet\Core\Scorecard;
use Kybernet\Core\Trend\MovingAverage;
use Kybernet\Core\Trend\ProjectionPath;

/**
 * Lays out how a KPI came to where it is, and where it is heading.
 */
final readonly class CourseReader
{
    /** How far the chart reaches back from the chosen month. */
    public const MONTHS_BACK = 35;

    private const AVERAGED = 3;

    public function __construct(private Scorecard $scorecard, private MeasurementStore $kpis) {}

    /**
     * What {@see of()} needs of some KPIs, with all that they are worked out from.
     *
     * @param  list<int>  $measurements
     * @return array<int, MeasurementFacts> by identity
     */
    public function facts(array $measurements, Period $chosen): array
    {
        return $measurements === [] ? [] : $this->kpis->whole($measurements, $chosen->plus(-self::MONTHS_BACK), $this->scorecard->year->months($chosen)[11]);
    }

    /** @param  Period|null  $week  that is looked at, where the KPI has weeks */
    public function of(MeasurementFacts $kpi, Period $chosen, ?Period $week = null): KpiCourse
    {
        $year = $this->scorecard->year->months($chosen);
        $first = $chosen->plus(-self::MONTHS_BACK);
        $definition = $kpi->measurement->definition;
        $ofWeek = $definition->frequency === Frequency::Week ? $week : null;
        $latest = $ofWeek ?? $this->scorecard->timeline->latest($definition->frequency, $chosen);
        $periods = $this->scorecard->year->endingIn($definition->frequency, $first, $year[11]);

        return new KpiCourse(
            $kpi->code,
            $kpi->name,
            $definition->measure,
            $definition->polarity->value,
            $definition->frequency->value,
            $definition->accumulation->value,
            $latest->key(),
            Headline::of($kpi, Span::Month, $ofWeek === null ? $this->scorecard->assess($kpi->measurement, $chosen, Span::Month) : $this->scorecard->assessPeriod($kpi->measurement, $ofWeek), $ofWeek === null ? $this->scorecard->streak($kpi->measurement, $chosen) : null),
            Headline::of($kpi, Span::YearToDate, $this->scorecard->assess($kpi->measurement, $chosen, Span::YearToDate), null),
            array_map(fn (Period $period, ?Exact $average): ChartPoint => $this->single($kpi, $period, $average), $periods, $this->averages($kpi, $periods)),
            array_map(fn (Period $month): ChartPoint => $this->gathered($kpi, $month, Span::YearToDate, $chosen), $year),
            array_map(fn (Period $month): ChartPoint => $this->gathered($kpi, $month, Span::Quarter, $chosen), $this->quarterEnds($first, $year[11])),
            TrendLine::of($this->scorecard->trend($kpi->measurement, $chosen), $latest),
            ControlLimits::of($this->scorecard->control($kpi->measurement, $chosen), $definition->min),
            $this->projection($kpi, $chosen),
        );
    }

    /**
     * @param  list<Period>  $periods
     * @return list<Exact|null>
     */
    private function averages(MeasurementFacts $kpi, array $periods): array
    {
        return $kpi->measurement->definition->kind === Kind::Judged
            ? array_fill(0, count($periods), null)
            : MovingAverage::of(array_map($kpi->measurement->actuals->figure(...), $periods), self::AVERAGED);
    }

    private function single(MeasurementFacts $kpi, Period $period, ?Exact $average): ChartPoint
    {
        $assessed = $this->scorecard->assessPeriod($kpi->measurement, $period);
        $earlier = $period->yearEarlier();

        return ChartPoint::of($kpi, $period->key(), $assessed, $earlier === null ? null : $kpi->measurement->actuals->figure($earlier), $average);
    }

    /** A span as it stood at the end of a month; one that has not come yet shows what is aimed at, and last year. */
    private function gathered(MeasurementFacts $kpi, Period $month, Span $span, Period $chosen): ChartPoint
    {
        $isToCome = $month->compareTo($chosen) > 0 && $span === Span::YearToDate;
        $measurement = $kpi->measurement;
        $assessed = $this->scorecard->assess(
            $isToCome ? new Measurement($measurement->definition, new Series([]), $measurement->targets, $measurement->tenure, $measurement->ownRules) : $measurement,
            $month,
            $span,
        );

        return ChartPoint::of($kpi, $month->key(), $assessed, $this->yearEarlier($kpi, $assessed));
    }

    /** The whole span a year earlier, however much of this year's is in. */
    private function yearEarlier(MeasurementFacts $kpi, Assessment $assessed): ?Exact
    {
        $periods = [];
        foreach ($assessed->figures->due as $period) {
            $earlier = $period->yearEarlier();
            if ($earlier === null || ! $kpi->measurement->actuals->has($earlier)) {
                return $assessed->prior->figure;
            }
            $periods[] = $earlier;
        }

        return $periods === [] ? null : $kpi->measurement->gather($periods);
    }

    /** @return list<Period> the last months of the financial quarters */
    private function quarterEnds(Period $first, Period $last): array
    {
        return array_map($this->scorecard->year->endMonth(...), $this->scorecard->year->endingIn(Frequency::Quarter, $first, $last));
    }

    /** Null where nothing can be said of the year's end. */
    public function projection(MeasurementFacts $kpi, Period $chosen): ?ProjectionView
    {
        $projection = $this->scorecard->projection($kpi->measurement, $chosen);
        $periods = $this->scorecard->timeline->yearPeriods($kpi->measurement->definition->frequency, $kpi->measurement->tenure, $this->scorecard->year->of($chosen));
        if ($projection === null || $periods === []) {
            return null;
        }
        $latest = $this->scorecard->timeline->latest($kpi->measurement->definition->frequency, $chosen);

        return ProjectionView::of(
            $projection,
            $this->scorecard->range($kpi->measurement, $chosen, $projection, $this->scorecard->control($kpi->measurement, $chosen)),
            ProjectionPath::of($projection, $kpi->measurement, $this->scorecard->timeline, $chosen),
            count(array_filter($periods, fn (Period $period): bool => $period->compareTo($latest) > 0)),
            $periods[count($periods) - 1]->key(),
            $kpi,
        );
    }
}
