<?php

declare(strict_types=1);

namespace App\Review;

use App\Figures\MeasurementStore;
use App\Figures\NoteRows;
use App\Models\Measurement;
use App\Models\User;
use App\Review\Views\Headline;
use App\Review\Views\MonthFigure;
use App\Review\Views\RowDetail;
use App\Support\Month;
use App\Support\PeriodDate;
use App\Views\ActionView;
use App\Views\ColourTexts;
use App\Views\NoteView;
use App\Views\Verdict;
use App\Views\WakePoint;
use Kybernet\Core\Calendar\Period;
use Kybernet\Core\Calendar\Span;
use Kybernet\Core\Scorecard;
use stdClass;

/**
 * What stands behind one row of a scorecard: the months of its year, the notes of two years, the judging sentence.
 */
final readonly class RowReader
{
    private const MONTHS_BACK = 24;

    public function __construct(
        private Scorecard $scorecard,
        private MeasurementStore $kpis,
        private NoteRows $notes,
        private PeriodDate $dates,
        private Related $related,
        private ActionReader $actions,
    ) {}

    public function detail(Measurement $measurement, Period $chosen, Span $span, User $user): RowDetail
    {
        $months = $this->scorecard->year->months($chosen);
        $drivers = $this->related->to($measurement, $user)['drivers'];
        $facts = $this->kpis->whole([$measurement->id, ...$drivers], $chosen->plus(-self::MONTHS_BACK), $months[11]);
        $kpi = $facts[$measurement->id]
            ?? throw new \LogicException('A measurement that was found is there.');
        $notes = $this->notes->between([$measurement->id], Month::date($chosen->plus(-self::MONTHS_BACK)), Month::date(Month::running()->plus(1)))[$measurement->id] ?? [];
        $frequency = $kpi->measurement->definition->frequency;
        $assessed = $this->scorecard->assess($kpi->measurement, $chosen, $span);
        $streak = $this->scorecard->streak($kpi->measurement, $chosen);

        return new RowDetail(
            $kpi->name,
            $kpi->measurement->definition->measure,
            $kpi->purpose,
            Verdict::of($assessed, $streak),
            $kpi->measurement->definition->accumulation->value,
            array_map(fn (Period $month): MonthFigure => MonthFigure::of(
                $kpi,
                $month,
                $this->scorecard->assess($kpi->measurement, $month, Span::Month),
            ), $months),
            array_values(array_map(
                fn (stdClass $note): NoteView => NoteView::of($note, $this->dates->period($note->period, $frequency)->key()),
                $notes,
            )),
            Headline::of($kpi, $span, $assessed, $streak),
            ColourTexts::of($kpi->texts),
            WakePoint::upTo($kpi, $this->scorecard->timeline->latest($frequency, $chosen)),
            $this->scorecard->status($kpi->measurement, $chosen, Span::Month)->value,
            $this->related->lines($this->related->assessed($drivers, $facts, $chosen, $span), $facts, $chosen, $kpi),
            array_values(array_filter($this->actions->of([$kpi->id => $kpi], $chosen, $user)[$kpi->id] ?? [], fn (ActionView $action): bool => $action->state === 'open')),
            $kpi->measurement->definition->counted !== null,
        );
    }
}
