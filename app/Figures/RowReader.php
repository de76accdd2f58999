<?php

declare(strict_types=1);

namespace App\Figures;

use App\Http\Resources\MonthFigure;
use App\Http\Resources\NoteResource;
use App\Http\Resources\RowDetail;
use App\Http\Resources\Verdict;
use App\Models\KpiUnit;
use App\Support\Month;
use App\Support\PeriodDate;
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

    public function __construct(private Scorecard $scorecard, private KpiStore $kpis, private NoteRows $notes, private PeriodDate $dates) {}

    public function detail(KpiUnit $measured, Period $chosen, Span $span): RowDetail
    {
        $months = $this->scorecard->year->months($chosen);
        $kpi = $this->kpis->one($measured->id, $chosen->plus(-self::MONTHS_BACK), $months[11])
            ?? throw new \LogicException('A KPI-unit that was found is there.');
        $notes = $this->notes->between([$measured->id], Month::date($chosen->plus(-self::MONTHS_BACK)), Month::date($chosen))[$measured->id] ?? [];
        $frequency = $kpi->measurement->definition->frequency;

        return new RowDetail(
            $kpi->purpose,
            Verdict::of($this->scorecard->assess($kpi->measurement, $chosen, $span), $this->scorecard->streak($kpi->measurement, $chosen)),
            $kpi->measurement->definition->accumulation->value,
            array_map(fn (Period $month): MonthFigure => MonthFigure::of(
                $kpi,
                $month,
                $this->scorecard->assess($kpi->measurement, $month, Span::Month),
            ), $months),
            array_values(array_map(
                fn (stdClass $note): NoteResource => NoteResource::of($note, $this->dates->period($note->period, $frequency)->key()),
                $notes,
            )),
        );
    }
}
