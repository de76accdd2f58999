<?php

declare(strict_types=1);

namespace App\Logbook;

use App\Figures\CellText;
use App\Figures\CellValue;
use App\Figures\Closures;
use App\Figures\EntryRules;
use App\Figures\Lock;
use App\Figures\MeasurementFacts;
use App\Figures\MeasurementStore;
use App\Logbook\Views\GridColumn;
use App\Logbook\Views\GridPage;
use App\Logbook\Views\GridRow;
use App\Models\Unit;
use App\Models\User;
use App\Organisation\Organisation;
use App\Organisation\Rights;
use App\Support\NumberSetting;
use App\Support\PeriodDate;
use App\Support\PgArray;
use App\Views\LockSchema;
use App\Views\Shown;
use Brick\Math\BigDecimal;
use Illuminate\Database\Connection;
use Kybernet\Core\Attention\Owed;
use Kybernet\Core\Calendar\Frequency;
use Kybernet\Core\Calendar\Period;
use Kybernet\Core\Calendar\Span;
use Kybernet\Core\Compare\LikeForLike;
use Kybernet\Core\Measure\Exact;
use Kybernet\Core\Measure\Kind;
use Kybernet\Core\Measure\TargetFrom;
use Kybernet\Core\Scorecard;
use Kybernet\Core\Status\Status;

/**
 * Lays out the year grid: the KPIs of a unit and the units below it, with the periods of a financial year across.
 */
final readonly class YearGridReader
{
    public const LAYERS = ['actual', 'target', 'prior'];

    public function __construct(
        private Scorecard $scorecard,
        private MeasurementStore $kpis,
        private Organisation $organisation,
        private Rights $rights,
        private EntryRules $rules,
        private Closures $closures,
        private PeriodDate $dates,
        private Connection $database,
    ) {}

    /** @param  string  $layer  one of {@see LAYERS} */
    public function page(Unit $unit, Period $month, string $layer, Frequency $columns, User $user): GridPage
    {
        $kpis = $this->load($unit, $month, $user);
        $isWeekly = fn (MeasurementFacts $kpi): bool => $kpi->measurement->definition->frequency === Frequency::Week;
        $periods = $this->columns($month, $columns);
        $shown = array_values(array_filter($kpis, fn (MeasurementFacts $kpi): bool => $isWeekly($kpi) === ($columns === Frequency::Week)));

        return new GridPage(
            $this->scorecard->year->label($month),
            $layer,
            array_map(fn (Period $period): GridColumn => new GridColumn(
                $period->key(),
                $this->scorecard->year->endMonth($period)->key(),
                $this->closures->holds($unit->id, $period),
            ), $periods),
            $this->rows($shown, $periods, $month, $layer, $user),
            array_filter($kpis, $isWeekly) !== [],
        );
    }

    /**
     * The rows again that a change of some KPIs may have touched: their own, and what is worked out.
     *
     * @param  list<int>  $touched  identities
     * @return list<GridRow>
     */
    public function again(Unit $unit, Period $month, string $layer, Frequency $columns, array $touched, User $user): array
    {
        $wanted = array_fill_keys($touched, true);
        $kpis = array_values(array_filter(
            $this->load($unit, $month, $user),
            fn (MeasurementFacts $kpi): bool => isset($wanted[$kpi->id]) || ! $kpi->isTyped() || $kpi->measurement->definition->targetFormula !== null,
        ));

        return $this->rows($kpis, $this->columns($month, $columns), $month, $layer, $user);
    }

    /** @return list<MeasurementFacts> in the order of the grid: unit by unit */
    private function load(Unit $unit, Period $month, User $user): array
    {
        $months = $this->scorecard->year->months($month);
        $units = $this->organisation->below($unit->id);
        $place = array_flip($units);
        $kpis = $this->rights->seen($user, $this->kpis->inUnits($units, $months[0], $months[11]));
        usort($kpis, fn (MeasurementFacts $one, MeasurementFacts $other): int => $place[$one->unitId] <=> $place[$other->unitId]);

        return $kpis;
    }

    /** @return list<Period> */
    private function columns(Period $month, Frequency $columns): array
    {
        $months = $this->scorecard->year->months($month);

        return $columns === Frequency::Week ? $this->scorecard->year->endingIn(Frequency::Week, $months[0], $months[11]) : $months;
    }

    /**
     * @param  list<MeasurementFacts>  $kpis
     * @param  list<Period>  $columns
     * @return list<GridRow>
     */
    private function rows(array $kpis, array $columns, Period $month, string $layer, User $user): array
    {
        $text = new CellText(new NumberSetting($user->locale));
        $notes = $layer === 'target' ? [] : $this->noted($kpis, $columns, $layer);

        return array_map(function (MeasurementFacts $kpi) use ($columns, $month, $layer, $user, $text, $notes): GridRow {
            $cells = ['typed' => [], 'statuses' => [], 'locks' => [], 'marks' => []];
            $following = [];
            $periods = array_map(fn (Period $column): ?Period => $this->cell($kpi, $column, $layer), $columns);
            foreach ($periods as $period) {
                if ($period === null) {
                    foreach (['typed' => '', 'statuses' => '', 'locks' => Lock::NoPeriod->value, 'marks' => ''] as $list => $item) {
                        $cells[$list][] = $item;
                    }
                    $following[] = '';

                    continue;
                }
                $value = $layer === 'target' ? $this->target($kpi, $period) : $this->reading($kpi, $period);
                $cells['typed'][] = $text->write($kpi->measurement->definition, $kpi->scaled, $value);
                $following[] = $layer === 'target' ? $text->write($kpi->measurement->definition, $kpi->scaled, $this->following($kpi, $period)) : '';
                $cells['statuses'][] = $layer === 'target' || $value->isBlank() ? '' : GridRow::LETTERS[$this->scorecard->periodStatus($kpi->measurement, $period)->value] ?? '';
                $cells['locks'][] = LockSchema::of($this->lock($kpi, $period, $value, $layer, $user));
                $cells['marks'][] = ($kpi->provisional([$period]) !== null && $layer !== 'target' ? 'p' : '').(isset($notes[$kpi->id][$this->dates->date($period)]) ? 'n' : '');
            }
            $isPlain = $columns === $periods;

            return new GridRow(
                $kpi->id,
                $kpi->code,
                $kpi->name,
                $kpi->measurement->definition->measure,
                $this->organisation->unit($kpi->unitId)->name,
                $kpi->theme ?? '',
                $kpi->measurement->definition->kind->value,
                $kpi->measurement->definition->formula->text ?? '',
                Owed::asksReason($kpi->measurement->definition),
                in_array('', $cells['locks'], true),
                $isPlain ? null : array_map(fn (?Period $period): string => $period?->key() ?? '', $periods),
                $cells['typed'],
                $layer === 'target' ? $following : null,
                $kpi->measurement->definition->targetFormula?->words() ?? '',
                $cells['statuses'],
                $cells['locks'],
                $cells['marks'],
                Shown::of($this->total($kpi, $month, $layer), $kpi),
            );
        }, $kpis);
    }

    /** The KPI's period that belongs in the column; null where none of its periods ends there. */
    private function cell(MeasurementFacts $kpi, Period $column, string $layer): ?Period
    {
        $frequency = $kpi->measurement->definition->frequency;
        $period = $column;
        if ($frequency !== $column->frequency) {
            $period = $this->scorecard->timeline->latest($frequency, $column);
            if ($this->scorecard->year->endMonth($period)->compareTo($column) !== 0) {
                return null;
            }
        }

        return $layer === 'prior' ? $period->yearEarlier() : $period;
    }

    private function reading(MeasurementFacts $kpi, Period $period): CellValue
    {
        $figure = $kpi->measurement->actuals->figure($period);
        if ($figure === null) {
            return new CellValue;
        }

        return $kpi->measurement->definition->kind === Kind::Judged
            ? new CellValue(colour: Status::ofScore((int) (string) $figure))
            // What is worked out is only shown, so it is rounded as everywhere else.
            : new CellValue($kpi->isTyped() ? $figure->toDecimal() : $figure->rounded($kpi->measurement->definition->decimals));
    }

    private function target(MeasurementFacts $kpi, Period $period): CellValue
    {
        $targets = $kpi->measurement->targets;

        $goal = $targets->set()->goal($period);

        // Only what was set for the period itself stands in the cell, and can be taken out of it.
        return $goal === null || $goal->from !== TargetFrom::Set ? new CellValue : new CellValue($goal->lower()->toDecimal(), $goal->band?->high->toDecimal());
    }

    /** What holds in a period for which no target is set; rounded, as it is only shown. */
    private function following(MeasurementFacts $kpi, Period $period): CellValue
    {
        $goal = $kpi->measurement->targets->goal($period);
        $rounded = fn (?Exact $figure): ?BigDecimal => $figure?->rounded(max(0, $kpi->measurement->definition->decimals));

        return $goal === null || $goal->from === TargetFrom::Set ? new CellValue : new CellValue($rounded($goal->lower()), $rounded($goal->band?->high));
    }

    private function lock(MeasurementFacts $kpi, Period $period, CellValue $value, string $layer, User $user): ?Lock
    {
        return match (true) {
            $layer === 'target' => $this->rules->targetLock($kpi, $period, $user),
            $layer === 'prior' && ! $value->isBlank() => Lock::OtherYear,
            default => $this->rules->readingLock($kpi, $period, $user),
        };
    }

    private function total(MeasurementFacts $kpi, Period $month, string $layer): ?Exact
    {
        $timeline = $this->scorecard->timeline;
        $measurement = $kpi->measurement;
        $year = $this->scorecard->year->of($layer === 'prior' ? $month->plus(-12) : $month);
        if ($layer === 'target') {
            return $measurement->targets->ofYear($year, $timeline->yearPeriods($measurement->definition->frequency, $measurement->tenure, $year), $measurement->definition->accumulation)?->target;
        }

        return LikeForLike::gather($measurement, $timeline->due(
            $measurement->definition->frequency,
            $measurement->tenure,
            $layer === 'prior' ? $month->plus(-12) : $month,
            Span::YearToDate,
        ))->actual;
    }

    /**
     * @param  list<MeasurementFacts>  $kpis
     * @param  list<Period>  $columns
     * @return array<int, array<string, true>> by measurement and date
     */
    private function noted(array $kpis, array $columns, string $layer): array
    {
        $first = $this->dates->date($layer === 'prior' ? $columns[0]->yearEarlier() ?? $columns[0] : $columns[0]);
        $noted = [];
        foreach ($this->database->table('notes')->whereBetween('period', [$first, $this->dates->date($columns[count($columns) - 1])])
            ->whereRaw('kpi_unit_id = ANY(?::bigint[])', [PgArray::of(array_map(fn (MeasurementFacts $kpi): int => $kpi->id, $kpis))])
            ->get(['kpi_unit_id', 'period']) as $note) {
            $noted[$note->kpi_unit_id][$note->period] = true;
        }

        return $noted;
    }
}
