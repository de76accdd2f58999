<?php

declare(strict_types=1);

namespace App\Exchange;

use App\Figures\MeasurementFacts;
use App\Figures\MeasurementStore;
use App\Figures\NoteRows;
use App\Models\Unit;
use App\Models\User;
use App\Organisation\Organisation;
use App\Organisation\Rights;
use App\Support\PeriodDate;
use Kybernet\Core\Calendar\FinancialYear;
use Kybernet\Core\Calendar\Frequency;
use Kybernet\Core\Calendar\Period;
use Kybernet\Core\Measure\Exact;
use Kybernet\Core\Measure\Kind;
use Kybernet\Core\Records\RecordFigures;
use Kybernet\Core\Status\Polarity;
use Kybernet\Core\Status\Status;

/**
 * The figures of a unit and the units below it, for a financial year, as a table that can be read back unchanged:
 * long, a row a reading, or wide, a row a layer with the periods across.
 */
final readonly class FigureTable
{
    public const LONG_FIGURES = [3, 4, 5, 6];

    /** What a figure is marked with that nobody typed: as its origin, or the layer it stands in. */
    private const RECORDS = 'records';

    public function __construct(
        private MeasurementStore $kpis,
        private Organisation $organisation,
        private Rights $rights,
        private NoteRows $notes,
        private PeriodDate $dates,
        private FinancialYear $year,
    ) {}

    /**
     * @param  string  $code  of the KPI alone that is wanted; blank for all
     * @return iterable<list<string>>
     */
    public function long(Unit $unit, Period $month, User $user, string $code = ''): iterable
    {
        yield ['kpi', 'unit', 'period', 'actual', 'target', 'low', 'high', 'note', 'origin'];
        $kpis = $this->load($unit, $month, $user, $code);
        $months = $this->year->months($month);
        $notes = $this->notes->between(array_map(fn (MeasurementFacts $kpi): int => $kpi->id, $kpis), $this->dates->date($months[0]->plus(-1)), $this->dates->date($months[11]));
        foreach ($kpis as $kpi) {
            foreach ($this->periods($kpi, $month) as $period) {
                [$actual, $target, $low, $high] = $this->figures($kpi, $period);
                $note = $notes[$kpi->id][$this->dates->date($period)]->text ?? '';
                if ($actual.$target.$low.$note !== '') {
                    yield [$kpi->code, $this->organisation->unit($kpi->unitId)->code, $period->key(), $actual, $target, $low, $high, $note, $this->isFromRecords($kpi, $period) ? self::RECORDS : ''];
                }
            }
            [$target, $low, $high] = $this->yearTarget($kpi, $month);
            if ($target.$low !== '') {
                yield [$kpi->code, $this->organisation->unit($kpi->unitId)->code, $this->year->of($month)->key(), '', $target, $low, $high, '', ''];
            }
        }
    }

    /**
     * @param  string  $code  of the KPI alone that is wanted; blank for all
     * @return list<list<string>>
     */
    public function wide(Unit $unit, Period $month, User $user, string $code = ''): array
    {
        $kpis = $this->load($unit, $month, $user, $code);
        $columns = [];
        foreach ([Frequency::Month, Frequency::Quarter, Frequency::Year, Frequency::Week] as $frequency) {
            $isUsed = array_filter($kpis, fn (MeasurementFacts $kpi): bool => $kpi->measurement->definition->frequency === $frequency) !== [];
            foreach ($isUsed || $frequency === Frequency::Month ? $this->year->endingIn($frequency, ...$this->ends($month)) : [] as $period) {
                $columns[] = $period->key();
            }
        }
        // Figures set for the year as a whole have a column of their own.
        $wholeYear = $this->year->of($month)->key();
        if (! in_array($wholeYear, $columns, true) && array_filter($kpis, fn (MeasurementFacts $kpi): bool => implode('', $this->yearTarget($kpi, $month)) !== '') !== []) {
            $columns[] = $wholeYear;
        }
        $rows = [['kpi', 'unit', 'layer', ...$columns]];
        foreach ($kpis as $kpi) {
            $layers = ['actual' => [], self::RECORDS => [], 'target' => []];
            foreach ($this->periods($kpi, $month) as $period) {
                [$actual, $target, $low, $high] = $this->figures($kpi, $period);
                $layers[$this->isFromRecords($kpi, $period) ? self::RECORDS : 'actual'][$period->key()] = $actual;
                $layers['target'][$period->key()] = $low === '' ? $target : "{$low} \u{2013} {$high}";
            }
            [$target, $low, $high] = $this->yearTarget($kpi, $month);
            if ($target.$low !== '') {
                $layers['target'][$wholeYear] = $low === '' ? $target : "{$low} \u{2013} {$high}";
            }
            foreach ($layers as $layer => $figures) {
                $cells = array_map(fn (string $column): string => $figures[$column] ?? '', $columns);
                if (implode('', $cells) !== '') {
                    $rows[] = [$kpi->code, $this->organisation->unit($kpi->unitId)->code, $layer, ...$cells];
                }
            }
        }

        return $rows;
    }

    /**
     * @param  string  $code  of the KPI alone that is wanted, in the unit itself; blank for all
     * @return list<MeasurementFacts>
     */
    private function load(Unit $unit, Period $month, User $user, string $code): array
    {
        [$first, $last] = $this->ends($month);
        $kpis = $this->rights->seen($user, $this->kpis->inUnits($this->organisation->below($unit->id), $first, $last));

        return $code === '' ? $kpis : array_values(array_filter($kpis, fn (MeasurementFacts $kpi): bool => $kpi->code === $code && $kpi->unitId === $unit->id));
    }

    /** @return array{Period, Period} */
    private function ends(Period $month): array
    {
        $months = $this->year->months($month);

        return [$months[0], $months[11]];
    }

    /** @return list<Period> */
    private function periods(MeasurementFacts $kpi, Period $month): array
    {
        return $this->year->endingIn($kpi->measurement->definition->frequency, ...$this->ends($month));
    }

    /** @return array{string, string, string} the figure set for the whole year: target, or low and high; blank where there is none */
    private function yearTarget(MeasurementFacts $kpi, Period $month): array
    {
        $targets = $kpi->measurement->targets->set();
        $key = $this->year->of($month)->key();
        $line = $kpi->measurement->definition->frequency === Frequency::Year ? '' : $targets->line->years()[$key] ?? '';
        $plain = fn (string $figure): string => $figure === '' ? '' : (string) Exact::of($figure);

        return $targets->upper === null ? [$plain($line), '', ''] : ['', $plain($line), $plain($line === '' ? '' : $targets->upper->years()[$key] ?? '')];
    }

    private function isFromRecords(MeasurementFacts $kpi, Period $period): bool
    {
        $actuals = $kpi->measurement->actuals;

        return $actuals instanceof RecordFigures && ! $actuals->byHand->has($period) && $actuals->has($period);
    }

    /** @return array{string, string, string, string} actual, target, low and high */
    private function figures(MeasurementFacts $kpi, Period $period): array
    {
        $measurement = $kpi->measurement;
        $figure = $measurement->actuals->figure($period);
        $written = fn (?Exact $exact): string => $exact === null ? '' : (string) $exact;
        // Those that were set: what follows from the figure of a year is not set for a period.
        $set = $measurement->targets->set();
        $line = $written($set->line->own()->figure($period));
        $isBand = $measurement->definition->polarity === Polarity::Band;

        return [
            $measurement->definition->kind === Kind::Judged && $figure !== null ? Status::ofScore((int) (string) $figure)->value : $written($figure),
            $isBand ? '' : $line,
            $isBand ? $line : '',
            $isBand ? $written($set->upper?->own()->figure($period)) : '',
        ];
    }
}
