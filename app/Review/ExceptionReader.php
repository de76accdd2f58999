<?php

declare(strict_types=1);

namespace App\Review;

use App\Figures\MeasurementLine;
use App\Figures\MeasurementStore;
use App\Figures\NoteRows;
use App\Kept\AssessedSpan;
use App\Kept\AssessmentStore;
use App\Models\Unit;
use App\Models\User;
use App\Organisation\Organisation;
use App\Organisation\Rights;
use App\Review\Views\ExceptionItem;
use App\Review\Views\ExceptionsPage;
use App\Review\Views\GoodNews;
use App\Support\Month;
use App\Support\PeriodDate;
use App\Support\PgArray;
use App\Views\ActionView;
use App\Views\NoteView;
use Brick\Math\BigDecimal;
use Illuminate\Database\Connection;
use Kybernet\Core\Attention\Exceptions;
use Kybernet\Core\Attention\Ranking;
use Kybernet\Core\Calendar\DueDate;
use Kybernet\Core\Calendar\Frequency;
use Kybernet\Core\Calendar\Period;
use Kybernet\Core\Calendar\Span;
use Kybernet\Core\Scorecard;
use stdClass;

/**
 * Ranks what deserves attention in a unit and below it.
 */
final readonly class ExceptionReader
{
    /** More than anybody reads; the others are counted. */
    private const SHOWN = 200;

    private const GOOD_NEWS = 60;

    public function __construct(
        private AssessmentStore $assessments,
        private Scorecard $scorecard,
        private MeasurementStore $kpis,
        private NoteRows $notes,
        private ActionReader $actions,
        private SeenMarks $seen,
        private Organisation $organisation,
        private Rights $rights,
        private PeriodDate $dates,
        private Connection $database,
    ) {}

    /** @param  int|null  $most  how many are shown, and as much good news; null for as many as anybody reads */
    public function page(Unit $unit, Period $chosen, Span $span, User $user, ?int $most = null): ExceptionsPage
    {
        $lines = array_column($this->rights->seen($user, $this->kpis->lines($this->organisation->below($unit->id, $chosen))), null, 'id');
        $reasons = $this->assessments->reasons(array_keys($lines), $chosen, $span);
        $ranked = $this->ranked($lines, $reasons);
        $shown = array_slice($ranked, 0, $most ?? self::SHOWN, true);
        $good = array_slice(array_filter(array_keys($lines), fn (int $id): bool => $reasons[$id][3]), 0, $most ?? self::GOOD_NEWS);
        $assessed = $this->assessments->spans([...array_keys($shown), ...array_diff($good, array_keys($shown))], [$chosen], $span);
        $notes = $this->notes->between(array_keys($shown), Month::date($chosen->plus(-12)), Month::date($chosen->plus(1)));
        $actions = $this->actions($lines, $chosen, $user);
        $seen = $this->seen->by($user, $chosen, array_keys($shown));

        $items = [];
        foreach ($shown as $id => $points) {
            $items[] = $this->item($lines[$id], $points, $assessed[$id][$chosen->key()], $notes[$id] ?? [], $actions[$id] ?? [], $seen[$id] ?? null, $user);
        }

        return new ExceptionsPage(
            $items,
            array_map(fn (int $id): GoodNews => new GoodNews($id, $lines[$id]->code, $lines[$id]->name, $this->code($lines[$id]), $assessed[$id][$chosen->key()]->goodNews ?? ''), $good),
            array_values(array_filter(array_merge(...array_values($actions)), fn (ActionView $action): bool => $action->overdue)),
            count($ranked),
        );
    }

    /**
     * What is being done in a unit and below it.
     *
     * @return list<ActionView> the earliest due first
     */
    public function open(Unit $unit, Period $chosen, User $user): array
    {
        $lines = array_column($this->rights->seen($user, $this->kpis->lines($this->organisation->below($unit->id, $chosen))), null, 'id');
        $open = array_values(array_filter(array_merge(...array_values($this->actions($lines, $chosen, $user)), ...[[]]), fn (ActionView $action): bool => $action->state === 'open'));
        usort($open, fn (ActionView $one, ActionView $other): int => [$one->due, $one->id] <=> [$other->due, $other->id]);

        return $open;
    }

    /**
     * @param  array<int, MeasurementLine>  $lines
     * @param  array<int, array{string, string, int, bool}>  $reasons
     * @return array<int, BigDecimal> the points × the weight by measurement
     */
    private function ranked(array $lines, array $reasons): array
    {
        // In the order of a workbook, which is that in which KPIs were defined.
        uasort($lines, fn (MeasurementLine $one, MeasurementLine $other): int => [$one->kpiId, $one->id] <=> [$other->kpiId, $other->id]);
        $points = [];
        foreach ($lines as $id => $kpi) {
            if ($reasons[$id][1] !== '') {
                $points[$id] = Exceptions::weighted($reasons[$id][2], $kpi->weight);
            }
        }

        return Ranking::of($points);
    }

    /**
     * @param  array<string, stdClass>  $notes  by date
     * @param  list<ActionView>  $actions
     */
    private function item(MeasurementLine $kpi, BigDecimal $points, AssessedSpan $assessed, array $notes, array $actions, ?string $seen, User $user): ExceptionItem
    {
        $latest = $assessed->latest === null ? null : Period::parse($assessed->latest, Frequency::ofKey($assessed->latest));
        $note = $latest === null ? null : $notes[$this->dates->date($latest)] ?? null;

        return new ExceptionItem(
            $kpi->id,
            $kpi->code,
            $kpi->name,
            $kpi->measure,
            $this->code($kpi),
            $kpi->owner,
            $kpi->ownerEmail,
            $assessed->status,
            $assessed->monthStatus,
            $assessed->called,
            $assessed->actual,
            $assessed->target,
            $assessed->prior,
            $assessed->zones,
            $assessed->course,
            $assessed->track,
            (string) $points->stripTrailingZeros(),
            (string) $kpi->weight->stripTrailingZeros(),
            $assessed->reasons,
            $assessed->wake,
            $assessed->latest ?? '',
            $latest !== null && $kpi->dueDay !== null && str_contains($assessed->codes(), 'missing') ? DueDate::after($this->scorecard->year->endMonth($latest), $kpi->dueDay) : null,
            $note === null ? null : NoteView::of($note, $assessed->latest ?? ''),
            array_values(array_filter($actions, fn (ActionView $action): bool => $action->state === 'open')),
            $seen === $assessed->codes(),
            $this->rights->mayLog($user, $kpi->unitId, $kpi->ownerId),
            $kpi->isCounted,
        );
    }

    private function code(MeasurementLine $kpi): string
    {
        return $this->organisation->unit($kpi->unitId)->code;
    }

    /**
     * @param  array<int, MeasurementLine>  $lines
     * @return array<int, list<ActionView>> by measurement
     */
    private function actions(array $lines, Period $chosen, User $user): array
    {
        $acted = array_values($this->database->table('actions')->where('state', 'open')->distinct()
            ->whereRaw('kpi_unit_id = ANY(?::bigint[])', [PgArray::of(array_keys($lines))])->pluck('kpi_unit_id')->all());

        return $acted === [] ? [] : $this->actions->of(
            array_intersect_key($this->kpis->whole($acted, $chosen->plus(-12), $chosen), array_fill_keys($acted, true)),
            $chosen,
            $user,
        );
    }
}
