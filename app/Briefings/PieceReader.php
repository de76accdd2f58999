<?php

declare(strict_types=1);

namespace App\Briefings;

use App\Briefings\Content\Content;
use App\Briefings\Content\PieceKind;
use App\Briefings\Views\OfferView;
use App\Briefings\Views\PieceView;
use App\Compare\CompareReader;
use App\Compare\RanksReader;
use App\Figures\MeasurementFacts;
use App\Figures\MeasurementLine;
use App\Models\Measurement;
use App\Models\User;
use App\Review\CourseReader;
use App\Review\MatrixReader;
use App\Review\ScorecardRows;
use App\Review\Views\ScorecardRow;
use App\Sources\BehindFinder;
use App\Sources\CasesReader;
use App\Sources\SplitsReader;
use App\Sources\Views\SplitView;
use Kybernet\Core\Calendar\Span;

/**
 * Answers for the pieces of a page. Figures, courses and texts are read for all pieces together; a piece that is a screen
 * of its own is asked of the reader of that screen.
 */
final readonly class PieceReader
{
    /** Kinds that show rows as a scorecard does. */
    private const ROWS = [PieceKind::Figure, PieceKind::Scale, PieceKind::Courses, PieceKind::Table];

    public function __construct(
        private Places $places,
        private ScorecardRows $rows,
        private SinceReader $since,
        private CourseReader $courses,
        private TextReader $texts,
        private Pictures $pictures,
        private UnderReader $under,
        private AttentionReader $attention,
        private DriverReader $drivers,
        private MatrixReader $matrix,
        private CompareReader $comparison,
        private RanksReader $ranks,
        private SplitsReader $splits,
        private BehindFinder $behind,
        private CasesReader $cases,
    ) {}

    /** @return list<PieceView> in the order of the page */
    public function answers(Content $content, PageView $page, User $user): array
    {
        $places = $this->under->open($this->places->of($content->pieces(), $page, $user), $page, $user);
        $rows = $this->allRows($places, $page);
        $facts = $this->courses->facts($this->withCourse($places), $page->month);
        $pictures = $this->pictures->some(array_values(array_filter(array_map(fn (Place $place): ?int => $place->piece->picture, $places), is_int(...))));
        $texts = $this->texts->of(array_values(array_filter($places, fn (Place $place): bool => $place->piece->kind->hasText())), $page, $user);
        $since = $this->since->of(array_values(array_filter($places, fn (Place $place): bool => $place->piece->kind === PieceKind::Figure && $place->piece->shows('since'))), $page->month);

        // One figure is often told by two of its splits.
        $splits = [];

        return array_map(function (Place $place) use ($rows, $facts, $texts, $pictures, $since, &$splits, $page, $user): PieceView {
            /** @var array{rows?: list<ScorecardRow>|null, problem?: string} $with and more, by the names of the view */
            $with = $place->problem !== '' ? [] : match ($place->piece->kind) {
                PieceKind::Figure => ['rows' => $this->rowsOf($place, $rows), 'since' => $since[$place->piece->id] ?? null, 'yearEnd' => $this->yearEnd($place, $facts, $page)],
                PieceKind::Scale, PieceKind::Courses => ['rows' => $this->rowsOf($place, $rows), 'total' => $place->total],
                PieceKind::Table => ['rows' => self::those($this->rowsOf($place, $rows), $place->piece->choice('rows'))],
                PieceKind::Line => ['course' => $this->courses->of($facts[$place->kpis[0]->id], $page->month)],
                PieceKind::Commentary, PieceKind::Text => ['text' => $texts[$place->piece->id], 'picture' => $pictures[$place->piece->picture ?? 0] ?? null],
                PieceKind::Map => ['regions' => $this->under->regions($place, $page)],
                PieceKind::Matrix => ['matrix' => $this->matrix->page($place->unit, $page->month, $place->span, $place->piece->choice('crossing'), $place->piece->kpis[0] ?? '', (int) $place->piece->choice('months'), $user)],
                PieceKind::Compare => $this->compared($place, $page, $user),
                PieceKind::Split => $this->split($place, $splits["{$place->kpis[0]->id} {$place->span->value}"] ??= $this->splits->read(Measurement::query()->findOrFail($place->kpis[0]->id), $page->month, $place->span, self::stranger($user))),
                PieceKind::Cases => $this->casesOf($place, $page, $user),
                PieceKind::Exceptions => $this->attention->exceptions($place, $page, $user),
                PieceKind::Actions => $this->attention->actions($place, $page, $user),
                PieceKind::Drivers => ['drivers' => $this->drivers->of($place, $page, $user)],
            };
            $problem = $place->problem !== '' ? $place->problem : $with['problem'] ?? '';
            unset($with['problem']);

            return new PieceView($place->piece->id, $place->unit->code, $place->unit->name, $place->span->value, $problem, ...$with);
        }, $places);
    }

    /**
     * @param  list<Place>  $places
     * @return array<string, array<int, ScorecardRow>> by span and measurement
     */
    private function allRows(array $places, PageView $page): array
    {
        $wanted = [];
        foreach ($places as $place) {
            foreach (in_array($place->piece->kind, self::ROWS, true) ? $place->kpis : [] as $kpi) {
                $wanted[$place->span->value][$kpi->id] = $kpi;
            }
        }
        $rows = [];
        foreach ($wanted as $span => $kpis) {
            $rows[$span] = ($page->week === null ? [] : $this->rows->ofWeek(array_values($kpis), $page->week)) + $this->rows->of(array_values($kpis), $page->month, Span::from($span));
        }

        return $rows;
    }

    /**
     * @param  array<string, array<int, ScorecardRow>>  $rows
     * @return list<ScorecardRow>
     */
    private function rowsOf(Place $place, array $rows): array
    {
        return array_map(fn (MeasurementLine $kpi): ScorecardRow => $rows[$place->span->value][$kpi->id], $place->kpis);
    }

    /**
     * @param  list<ScorecardRow>  $rows
     * @return list<ScorecardRow>
     */
    private static function those(array $rows, string $choice): array
    {
        $wanted = ['red' => ['red'], 'bad' => ['red', 'amber']][$choice] ?? null;

        return $wanted === null ? $rows : array_values(array_filter($rows, fn (ScorecardRow $row): bool => in_array($row->status, $wanted, true)));
    }

    /**
     * @param  list<Place>  $places
     * @return list<int> measurements of which more than what is kept is wanted
     */
    private function withCourse(array $places): array
    {
        $wanted = [];
        foreach ($places as $place) {
            $piece = $place->piece;
            if ($place->problem === '' && ($piece->kind === PieceKind::Line || ($piece->kind === PieceKind::Figure && ($piece->shows('pace') || $piece->shows('yearEnd'))))) {
                array_push($wanted, ...array_map(fn (MeasurementLine $kpi): int => $kpi->id, $place->kpis));
            }
        }

        return array_values(array_unique($wanted));
    }

    /** @param  array<int, MeasurementFacts>  $facts */
    private function yearEnd(Place $place, array $facts, PageView $page): mixed
    {
        $kpi = $place->piece->shows('pace') || $place->piece->shows('yearEnd') ? $facts[$place->kpis[0]->id] ?? null : null;

        return $kpi === null ? null : $this->courses->projection($kpi, $page->month);
    }

    /** @return array<string, mixed> */
    private function compared(Place $place, PageView $page, User $user): array
    {
        $codes = $place->piece->kpis;
        $comparison = $this->comparison->page($place->unit, $page->month, $place->span, '', $codes, '', null, $user);

        return [
            'comparison' => $comparison,
            'ranks' => $place->piece->choice('graphic') === 'ranks' && $comparison->kpis !== [] ? $this->ranks->read($place->unit, $page->month, $place->span, $comparison->kind, $comparison->kpis[0]->code, $user) : null,
        ];
    }

    /**
     * What is sensitive stands on no briefing, whoever writes or reads it: a page goes to more people than its writer knows.
     *
     * @param  list<SplitView>  $splits  of its KPI
     * @return array<string, mixed>
     */
    private function split(Place $place, array $splits): array
    {
        $wanted = array_values(array_filter($splits, fn (SplitView $split): bool => $place->piece->of === '' || $split->code === $place->piece->of))[0] ?? null;

        return $wanted === null
            ? ['problem' => "{$place->kpis[0]->name} is not split ".($place->piece->of === '' ? '' : 'like this ').'by anything that is for every reader.']
            : ['split' => $wanted, 'offered' => array_map(fn (SplitView $split): OfferView => new OfferView($split->code, $split->name), $splits)];
    }

    /** @return array<string, mixed> */
    private function casesOf(Place $place, PageView $page, User $user): array
    {
        $behind = $this->behind->find(Measurement::query()->findOrFail($place->kpis[0]->id), $page->month, $place->span);
        if ($behind === null) {
            return ['problem' => "{$place->kpis[0]->name} is not counted from records: there are no cases behind it."];
        }
        $cases = $this->cases->read($behind, $page->month, $place->span, $place->piece->of, '', self::stranger($user));

        if ($cases->masked) {
            return ['problem' => 'What these cases are measured by is sensitive, and stands on no briefing.'];
        }

        return ['cases' => $cases, 'offered' => [...($cases->steps ? [new OfferView(CasesReader::STEPS, 'step by step')] : []), ...array_map(fn (string $field): OfferView => new OfferView($field, 'by '.str_replace('_', ' ', $field)), $cases->fields)]];
    }

    /** Somebody who may see nothing of any set of records, and writes figures as the person does. */
    private static function stranger(User $user): User
    {
        return (new User)->forceFill(['id' => 0, 'locale' => $user->locale]);
    }
}
