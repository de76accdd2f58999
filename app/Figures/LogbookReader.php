<?php

declare(strict_types=1);

namespace App\Figures;

use App\Http\Resources\LogbookPage;
use App\Http\Resources\LogbookRow;
use App\Http\Resources\NoteResource;
use App\Http\Resources\Verdict;
use App\Models\KpiUnit;
use App\Models\Unit;
use App\Models\User;
use App\Policies\Rights;
use App\Support\Month;
use App\Support\NumberSetting;
use App\Support\PeriodDate;
use App\Support\PgArray;
use Brick\Math\BigDecimal;
use Carbon\CarbonImmutable;
use Illuminate\Database\Connection;
use Kybernet\Core\Calendar\Period;
use Kybernet\Core\Measure\Kind;
use Kybernet\Core\Measure\Measurement;
use Kybernet\Core\Scorecard;
use Kybernet\Core\Status\Status;

/**
 * Lays out the month sheet: what a person is to fill of a unit and the units below it, one line for each period that
 * ends in the month, with what is worked out from it.
 */
final readonly class LogbookReader
{
    /** A streak, and the usual range of a figure, look back two years. */
    private const MONTHS_BACK = 12;

    public function __construct(
        private Scorecard $scorecard,
        private KpiStore $kpis,
        private Organisation $organisation,
        private Rights $rights,
        private EntryRules $rules,
        private Closures $closures,
        private NoteRows $notes,
        private PeriodDate $dates,
        private Connection $database,
    ) {}

    public function page(Unit $unit, Period $month, User $user): LogbookPage
    {
        $units = $this->organisation->below($unit->id);
        $place = array_flip($units);
        $lines = [];
        foreach ($this->kpis->inUnits($units, $month->plus(-self::MONTHS_BACK), $month) as $kpi) {
            if ($this->rights->mayLog($user, $kpi->unitId, $kpi->ownerId)) {
                foreach ($this->scorecard->ending($kpi->measurement, $month) as $period) {
                    $lines[] = [$kpi, $period];
                }
            }
        }
        usort($lines, fn (array $one, array $other): int => $place[$one[0]->unitId] <=> $place[$other[0]->unitId]);
        $dueDays = array_filter(array_map(fn (array $line): ?int => $line[0]->dueDay, $lines), is_int(...));

        return new LogbookPage(
            $month->key(),
            $month->compareTo(Month::running()) <= 0,
            $this->closures->holds($unit->id, $month),
            $dueDays === [] ? null : $this->dueDate($month, max($dueDays)),
            $this->rows($lines, $user),
        );
    }

    public function row(KpiUnit $measured, Period $period, User $user): LogbookRow
    {
        return $this->rows([[$this->one($measured, $period), $period]], $user)[0];
    }

    /** How a value would be judged if it were entered. */
    public function preview(KpiUnit $measured, Period $period, CellValue $value): Verdict
    {
        $kpi = $this->one($measured, $period);
        $tried = $kpi->isTyped()
            ? $kpi->measurement->entering($period, $value->figure ?? ($value->colour === null ? null : BigDecimal::of((int) $value->colour->score())))
            : $kpi->measurement;

        return Verdict::of(
            $this->scorecard->assessPeriod($tried, $period),
            $this->scorecard->streak($tried, $this->scorecard->year->endMonth($period)),
            $this->question($kpi, $tried, $period),
        );
    }

    private function one(KpiUnit $measured, Period $period): KpiFacts
    {
        $month = $this->scorecard->year->endMonth($period);

        return $this->kpis->one($measured->id, $month->plus(-self::MONTHS_BACK), $month)
            ?? throw new \LogicException('A KPI-unit that was found is there.');
    }

    /** The day of the following month on which the last reading is due, `2026-09-08`. */
    private function dueDate(Period $month, int $day): string
    {
        $next = Month::date($month->plus(1));

        return CarbonImmutable::parse($next)->addDays(min($day, CarbonImmutable::parse($next)->daysInMonth) - 1)->toDateString();
    }

    private function question(KpiFacts $kpi, Measurement $measured, Period $period): string
    {
        return $this->scorecard->unusual($measured, $period)?->question($kpi->measurement->definition->decimals) ?? '';
    }

    /**
     * @param  list<array{KpiFacts, Period}>  $lines
     * @return list<LogbookRow>
     */
    private function rows(array $lines, User $user): array
    {
        $ids = array_values(array_unique(array_map(fn (array $line): int => $line[0]->id, $lines)));
        $dates = array_map(fn (array $line): string => $this->dates->date($line[1]), $lines);
        [$first, $last] = $dates === [] ? ['9999-12-31', '0001-01-01'] : [min($dates), max($dates)];
        $kept = [];
        foreach ($this->database->table('readings')->whereRaw('kpi_unit_id = ANY(?::bigint[])', [PgArray::of($ids)])
            ->whereBetween('period', [$first, $last])->get(['kpi_unit_id', 'period', 'version', 'state']) as $reading) {
            $kept[$reading->kpi_unit_id.$reading->period] = $reading;
        }
        $notes = $this->notes->between($ids, $first, $last);
        $text = new CellText(new NumberSetting($user->locale));

        return array_map(function (array $line, string $date) use ($kept, $notes, $text, $user): LogbookRow {
            [$kpi, $period] = $line;
            $measured = $kpi->measurement;
            $assessed = $this->scorecard->assessPeriod($measured, $period);
            $figure = $measured->actuals->figure($period);
            $value = $measured->definition->kind === Kind::Judged
                ? new CellValue(colour: $figure === null ? null : Status::ofScore((int) (string) $figure))
                // What is worked out is only shown, so it is rounded as everywhere else.
                : new CellValue($kpi->isTyped() ? $figure?->toDecimal() : $figure?->rounded($measured->definition->decimals));
            $note = $notes[$kpi->id][$date] ?? null;
            $earlier = $period->yearEarlier();

            return LogbookRow::of(
                $kpi,
                $this->organisation->unit($kpi->unitId)->name,
                $period,
                $assessed,
                Verdict::of(
                    $assessed,
                    $this->scorecard->streak($measured, $this->scorecard->year->endMonth($period)),
                    $this->question($kpi, $measured, $period),
                ),
                [
                    $this->scorecard->periodStatus($measured, $period->previous()),
                    $earlier === null ? Status::NoData : $this->scorecard->periodStatus($measured, $earlier),
                ],
                $text->write($kpi->measurement->definition, $kpi->scaled, $value),
                ($kept[$kpi->id.$date] ?? null)->version ?? 0,
                ($kept[$kpi->id.$date] ?? null)->state ?? 'entered',
                $this->rules->readingLock($kpi, $period, $user),
                $note === null ? null : NoteResource::of($note, $period->key()),
            );
        }, $lines, $dates);
    }
}
