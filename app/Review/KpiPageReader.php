<?php

declare(strict_types=1);

namespace App\Review;

use App\Figures\MeasurementFacts;
use App\Figures\MeasurementStore;
use App\Figures\NoteRows;
use App\Models;
use App\Models\User;
use App\Organisation\Rights;
use App\Review\Views\Headline;
use App\Review\Views\KpiPage;
use App\Review\Views\RuleLine;
use App\Review\Views\StandingView;
use App\Support\Month;
use App\Support\PeriodDate;
use App\Views\ColourTexts;
use App\Views\NoteView;
use Illuminate\Database\Connection;
use Kybernet\Core\Calendar\Period;
use Kybernet\Core\Calendar\Span;
use Kybernet\Core\Measure\Kind;
use Kybernet\Core\Scorecard;
use Kybernet\Core\Status\Explanation;
use Kybernet\Core\Status\RuleSet;
use stdClass;

/**
 * Lays out the page of one KPI in one unit.
 */
final readonly class KpiPageReader
{
    public function __construct(
        private Scorecard $scorecard,
        private MeasurementStore $kpis,
        private NoteRows $notes,
        private ActionReader $actions,
        private CourseReader $courses,
        private Related $related,
        private Rights $rights,
        private PeriodDate $dates,
        private Connection $database,
    ) {}

    public function page(Models\Measurement $measurement, Period $chosen, Span $span, User $user, ?Period $week = null): KpiPage
    {
        $year = $this->scorecard->year->months($chosen);
        $first = $chosen->plus(-CourseReader::MONTHS_BACK);
        $related = $this->related->to($measurement, $user);
        $facts = $this->kpis->whole([$measurement->id, ...$related['drivers'], ...$related['places']], $first, $year[11]);
        $kpi = $facts[$measurement->id] ?? throw new \LogicException('A measurement that was found is there.');
        $definition = $kpi->measurement->definition;
        $notes = $this->notes->between([$kpi->id], Month::date($first->plus(-11)), Month::date($year[11]))[$kpi->id] ?? [];
        $assessed = [];
        foreach (Span::cases() as $each) {
            $assessed[$each->value] = $this->scorecard->assess($kpi->measurement, $chosen, $each);
        }
        $streak = $this->scorecard->streak($kpi->measurement, $chosen);
        $headline = fn (Span $each): Headline => Headline::of($kpi, $each, $assessed[$each->value], $each === Span::Month ? $streak : null);
        $course = $this->courses->of($kpi, $chosen, $week);
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
            $course->latest,
            $course->month,
            $course->yearToDate,
            $span === Span::Month || $span === Span::YearToDate ? null : $headline($span),
            $course->history,
            $course->gathered,
            $course->quarters,
            $course->trend,
            $course->control,
            $course->projection,
            array_values(array_map(fn (stdClass $note): NoteView => NoteView::of($note, $this->dates->period($note->period, $definition->frequency)->key()), $notes)),
            $this->actions->of([$kpi->id => $kpi], $chosen, $user)[$kpi->id] ?? [],
            $this->rules($kpi),
            $this->related->lines($this->related->assessed($related['drivers'], $facts, $chosen, $span), $facts, $chosen, $kpi),
            $this->related->lines($places, $facts, $chosen, among: $standing),
            $standing === null ? null : StandingView::of($standing),
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
