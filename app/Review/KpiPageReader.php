<?php

declare(strict_types=1);

namespace App\Review;

use App\Figures\MeasurementFacts;
use App\Figures\MeasurementStore;
use App\Figures\NoteRows;
use App\Models;
use App\Models\User;
use App\Organisation\Rights;
use App\Review\Views\ChartPoint;
use App\Review\Views\ControlLimits;
use App\Review\Views\Headline;
use App\Review\Views\KpiPage;
use App\Review\Views\ProjectionView;
use App\Review\Views\RuleLine;
use App\Review\Views\StandingView;
use App\Review\Views\TrendLine;
use App\Support\Month;
use App\Support\PeriodDate;
use App\Views\ColourTexts;
use App\Views\NoteView;
use Illuminate\Database\Connection;
use Kybernet\Core\Assessment;
use Kybernet\Core\Calendar\Frequency;
use Kybernet\Core\Calendar\Period;
use Kybernet\Core\Calendar\Span;
use Kybernet\Core\Measure\Exact;
use Kybernet\Core\Measure\Kind;
use Kybernet\Core\Measure\Measurement;
use Kybernet\Core\Measure\Series;
use Kybernet\Core\Scorecard;
use Kybernet\Core\Status\Explanation;
use Kybernet\Core\Status\RuleSet;
use Kybernet\Core\Trend\MovingAverage;
use Kybernet\Core\Trend\ProjectionPath;
use stdClass;

/**
 * Lays out the page of one KPI in one unit.
 */
final readonly class KpiPageReader
{
    /** How far the chart reaches back from the chosen month. */
    private const MONTHS_BACK = 35;

    private const AVERAGED = 3;

    public function __construct(
        private Scorecard $scorecard,
        private MeasurementStore $kpis,
        private NoteRows $notes,
        private ActionReader $actions,
        private Related $related,
        private Rights $rights,
        private PeriodDate $dates,
        private Connection $database,
    ) {}

    public function page(Models\Measurement $measurement, Period $chosen, Span $span, User $user): KpiPage
    {
        $year = $this->scorecard->year->months($chosen);
        $first = $chosen->plus(-self::MONTHS_BACK);
        $related = $this->related->to($measurement, $user);
        $facts = $this->kpis->whole([$measurement->id, ...$related['drivers'], ...$related['places']], $first, $year[11]);
        $kpi = $facts[$measurement->id] ?? throw new \LogicException('A measurement that was found is there.');
        $definition = $kpi->measurement->definition;
        $latest = $this->scorecard->timeline->latest($definition->frequency, $chosen);
        $periods = $this->scorecard->year->endingIn($definition->frequency, $first, $year[11]);
        $notes = $this->notes->between([$kpi->id], Month::date($first->plus(-11)), Month::date($year[11]))[$kpi->id] ?? [];
        $assessed = [];
        foreach (Span::cases() as $each) {
            $assessed[$each->value] = $this->scorecard->assess($kpi->measurement, $chosen, $each);
        }
        $streak = $this->scorecard->streak($kpi->measurement, $chosen);
        $headline = fn (Span $each): Headline => Headline::of($kpi, $each, $assessed[$each->value], $each === Span::Month ? $streak : null);
        $row = $this->about($measurement->id);
        $places = $this->related->assessed($related['places'], $facts, $chosen, $span);
        $standing = $this->related->standing($kpi, [$kpi->id => $assessed[$span->value]] + $places, $facts);

        return new KpiPage(
            $kpi->id,
            $kpi->code,
            $kpi->name,
            $kpi->purpose,
            $definition->measure,
            $definition->polarity->value,
            $definition->kind->value,
            $kpi->parts !== [] && $kpi->isTyped(),
            $definition->formula?->text,
            $definition->frequency->value,
            $definition->accumulation->value,
            $row->objective,
            $kpi->owner,
            $row->source,
            ColourTexts::of($kpi->texts),
            $this->rights->mayLog($user, $kpi->unitId, $kpi->ownerId),
            $definition->kind !== Kind::Judged && $user->can('call', $measurement),
            $latest->key(),
            $headline(Span::Month),
            $headline(Span::YearToDate),
            $span === Span::Month || $span === Span::YearToDate ? null : $headline($span),
            array_map(fn (Period $period, ?Exact $average): ChartPoint => $this->single($kpi, $period, $average), $periods, $this->averages($kpi, $periods)),
            array_map(fn (Period $month): ChartPoint => $this->gathered($kpi, $month, Span::YearToDate, $chosen), $year),
            array_map(fn (Period $month): ChartPoint => $this->gathered($kpi, $month, Span::Quarter, $chosen), $this->quarterEnds($first, $year[11])),
            TrendLine::of($this->scorecard->trend($kpi->measurement, $chosen), $latest),
            ControlLimits::of($this->scorecard->control($kpi->measurement, $chosen), $definition->min),
            $this->projection($kpi, $chosen),
            array_values(array_map(fn (stdClass $note): NoteView => NoteView::of($note, $this->dates->period($note->period, $definition->frequency)->key()), $notes)),
            $this->actions->of([$kpi->id => $kpi], $chosen, $user)[$kpi->id] ?? [],
            $this->rules($kpi),
            $this->related->lines($this->related->assessed($related['drivers'], $facts, $chosen, $span), $facts, $chosen, $kpi),
            $this->related->lines($places, $facts, $chosen, among: $standing),
            $standing === null ? null : StandingView::of($standing),
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

    private function projection(MeasurementFacts $kpi, Period $chosen): ?ProjectionView
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

    /** @return list<RuleLine> newest first */
    private function rules(MeasurementFacts $kpi): array
    {
        $line = fn (bool $own): \Closure => fn (RuleSet $rule): RuleLine => new RuleLine($rule->from->key(), $own, Explanation::rule($kpi->measurement->definition, $rule));
        $lines = [...array_map($line(true), $kpi->measurement->ownRules), ...array_map($line(false), $kpi->measurement->definition->rules)];
        usort($lines, fn (RuleLine $one, RuleLine $other): int => [$other->from, $other->own] <=> [$one->from, $one->own]);

        return $lines;
    }

    private function about(int $measurement): stdClass
    {
        return $this->database->table('kpi_unit')->join('kpis', 'kpis.id', '=', 'kpi_unit.kpi_id')
            ->leftJoin('objectives', 'objectives.id', '=', 'kpis.objective_id')
            ->where('kpi_unit.id', $measurement)->first(['objectives.name as objective', 'kpis.source'])
            ?? throw new \LogicException('A measurement that was found is there.');
    }
}
