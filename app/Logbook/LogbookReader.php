<?php

declare(strict_types=1);

namespace App\Logbook;

use App\Figures\CellText;
use App\Figures\CellValue;
use App\Figures\Closures;
use App\Figures\EntryRules;
use App\Figures\MeasurementFacts;
use App\Figures\MeasurementStore;
use App\Figures\ReadingStage;
use App\Logbook\Views\LogbookPage;
use App\Logbook\Views\LogbookPart;
use App\Logbook\Views\LogbookRow;
use App\Models;
use App\Models\Unit;
use App\Models\User;
use App\Organisation\Organisation;
use App\Organisation\Rights;
use App\Support\Month;
use App\Support\NumberSetting;
use App\Support\PeriodDate;
use App\Support\Snapshot;
use App\Views\Verdict;
use Brick\Math\BigDecimal;
use Illuminate\Database\Connection;
use Kybernet\Core\Calendar\DueDate;
use Kybernet\Core\Calendar\Period;
use Kybernet\Core\Measure\Kind;
use Kybernet\Core\Measure\Measurement;
use Kybernet\Core\Records\RecordFigures;
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
        private MeasurementStore $kpis,
        private Organisation $organisation,
        private Rights $rights,
        private EntryRules $rules,
        private Closures $closures,
        private EndingPeriods $ending,
        private Snapshot $snapshot,
        private Connection $database,
        private PeriodDate $dates,
    ) {}

    public function page(Unit $unit, Period $month, User $user): LogbookPage
    {
        return $this->snapshot->read(fn (): LogbookPage => $this->laidOut($unit, $month, $user));
    }

    private function laidOut(Unit $unit, Period $month, User $user): LogbookPage
    {
        $lines = $this->lines($unit, $month, $user);
        $dueDays = array_filter(array_map(fn (array $line): ?int => $line[0]->dueDay, $lines), is_int(...));

        return new LogbookPage(
            $month->key(),
            $month->compareTo(Month::running()) <= 0,
            $this->closures->holds($unit->id, $month),
            $dueDays === [] ? null : DueDate::after($month, max($dueDays)),
            $this->rows($lines, $user),
        );
    }

    /** @return list<MonthEntry> what the person is to fill, and how far it is */
    public function entries(Unit $unit, Period $month, User $user): array
    {
        return $this->snapshot->read(fn (): array => $this->kept($this->lines($unit, $month, $user), $user));
    }

    /** @return list<array{MeasurementFacts, Period}> what the person is to fill, in the order of the units */
    private function lines(Unit $unit, Period $month, User $user): array
    {
        $units = $this->organisation->below($unit->id);
        $place = array_flip($units);
        $mine = array_filter(
            $this->kpis->inUnits($units, $month->plus(-self::MONTHS_BACK), $month),
            fn (MeasurementFacts $kpi): bool => $this->rights->mayLog($user, $kpi->unitId, $kpi->ownerId),
        );
        $lines = $this->ending->lines($mine, $month);
        usort($lines, fn (array $one, array $other): int => $place[$one[0]->unitId] <=> $place[$other[0]->unitId]);

        return $lines;
    }

    public function row(Models\Measurement $measurement, Period $period, User $user): LogbookRow
    {
        return $this->snapshot->read(fn (): LogbookRow => $this->rows([[$this->one($measurement, $period), $period]], $user)[0]);
    }

    /** How a value would be judged if it were entered. */
    public function preview(Models\Measurement $measurement, Period $period, CellValue $value): Verdict
    {
        $kpi = $this->one($measurement, $period);
        $tried = $kpi->isTyped() || $kpi->measurement->actuals instanceof RecordFigures
            ? $kpi->measurement->entering($period, $value->figure ?? ($value->colour === null ? null : BigDecimal::of((int) $value->colour->score())))
            : $kpi->measurement;

        return Verdict::of(
            $this->scorecard->assessPeriod($tried, $period),
            $this->scorecard->streak($tried, $this->scorecard->year->endMonth($period)),
            $this->question($kpi, $tried, $period),
        );
    }

    private function one(Models\Measurement $measurement, Period $period): MeasurementFacts
    {
        $month = $this->scorecard->year->endMonth($period);

        return $this->kpis->one($measurement->id, $month->plus(-self::MONTHS_BACK), $month)
            ?? throw new \LogicException('A measurement that was found is there.');
    }

    private function question(MeasurementFacts $kpi, Measurement $measurement, Period $period): string
    {
        return $this->scorecard->unusual($measurement, $period)?->question($kpi->measurement->definition->decimals) ?? '';
    }

    /**
     * @param  list<array{MeasurementFacts, Period}>  $lines
     * @return list<MonthEntry>
     */
    private function kept(array $lines, User $user): array
    {
        return array_map(fn (array $line, array $kept): MonthEntry => new MonthEntry(
            $line[0],
            $line[1],
            $this->scorecard->assessPeriod($line[0]->measurement, $line[1]),
            $this->rules->readingLock($line[0], $line[1], $user),
            $kept[0]->version ?? 0,
            $kept[0] === null ? null : ReadingStage::from($kept[0]->state),
            $kept[1],
            $line[0]->measurement->actuals instanceof RecordFigures && $this->rules->overLock($line[0], $line[1], $user) === null,
        ), $lines, $this->ending->kept($lines));
    }

    /**
     * @param  list<array{MeasurementFacts, Period}>  $lines
     * @return list<LogbookRow>
     */
    private function rows(array $lines, User $user): array
    {
        $text = new CellText(new NumberSetting($user->locale));
        $parts = $this->parts($lines);

        return array_map(function (MonthEntry $entry) use ($text, $parts): LogbookRow {
            [$kpi, $period] = [$entry->kpi, $entry->period];
            $measurement = $kpi->measurement;
            $figure = $measurement->actuals->figure($period);
            $value = $measurement->definition->kind === Kind::Judged
                ? new CellValue(colour: $figure === null ? null : Status::ofScore((int) (string) $figure))
                // What is worked out is only shown, so it is rounded as everywhere else.
                : new CellValue($kpi->isTyped() ? $figure?->toDecimal() : $figure?->rounded($measurement->definition->decimals));
            $earlier = $period->yearEarlier();

            return LogbookRow::of(
                $entry,
                $this->organisation->unit($kpi->unitId)->name,
                $this->organisation->unit($kpi->unitId)->code,
                Verdict::of(
                    $entry->assessed,
                    $this->scorecard->streak($measurement, $this->scorecard->year->endMonth($period)),
                    $this->question($kpi, $measurement, $period),
                ),
                [
                    $this->scorecard->periodStatus($measurement, $period->previous()),
                    $earlier === null ? Status::NoData : $this->scorecard->periodStatus($measurement, $earlier),
                ],
                $text->write($kpi->measurement->definition, $kpi->scaled, $value),
                array_map(fn (string $part): LogbookPart => new LogbookPart(
                    $part,
                    $text->write($kpi->measurement->definition, $kpi->scaled, CellValue::kept($parts[$kpi->id][$this->dates->date($period)][$part] ?? null)),
                ), $kpi->isTyped() ? $kpi->parts : []),
            );
        }, $this->kept($lines, $user));
    }

    /**
     * @param  list<array{MeasurementFacts, Period}>  $lines
     * @return array<int, array<string, array<string, string>>> figures of parts, by measurement, date and name
     */
    private function parts(array $lines): array
    {
        $wanted = array_values(array_filter($lines, fn (array $line): bool => $line[0]->parts !== []));
        $parts = [];
        foreach ($wanted === [] ? [] : $this->database->table('reading_parts')
            ->whereIn('kpi_unit_id', array_map(fn (array $line): int => $line[0]->id, $wanted))
            ->whereIn('period', array_map(fn (array $line): string => $this->dates->date($line[1]), $wanted))->get() as $row) {
            $parts[$row->kpi_unit_id][$row->period][$row->part] = $row->actual;
        }

        return $parts;
    }
}
