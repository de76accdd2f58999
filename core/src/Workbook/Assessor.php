<?php

declare(strict_types=1);

namespace Kybernet\Core\Workbook;

use Kybernet\Core\Assessment;
use Kybernet\Core\Attention\Streak;
use Kybernet\Core\Calendar\Period;
use Kybernet\Core\Calendar\Span;
use Kybernet\Core\Measure\Composition;
use Kybernet\Core\Measure\Measurement;
use Kybernet\Core\Measure\Series;
use Kybernet\Core\Records\RecordFigures;
use Kybernet\Core\Records\SplitPart;
use Kybernet\Core\Records\TypedParts;
use Kybernet\Core\Scorecard;
use Kybernet\Core\Status\RollUp;
use Kybernet\Core\Status\Tally;
use Kybernet\Core\Status\UnitTree;

/**
 * Holds a whole workbook against the rules, one measurement at a time.
 */
final class Assessor
{
    private readonly Scorecard $scorecard;

    private readonly Composition $composition;

    /**
     * @param  Span  $span  on which exceptions are looked for
     * @param  bool  $withSplits  whether parts are worked out too
     */
    public function __construct(private readonly Workbook $workbook, private readonly Period $chosen, private readonly Span $span, private readonly bool $withSplits = false)
    {
        $this->scorecard = new Scorecard($workbook->year);
        $this->composition = $workbook->composition($this->scorecard->timeline);
    }

    /** @return iterable<Assessed> in the workbook's order: KPIs, then their units */
    public function assessments(): iterable
    {
        foreach ($this->workbook->kpis as $kpi) {
            foreach ($kpi->units as $entry) {
                yield $this->assess($kpi, $entry);
            }
        }
    }

    /**
     * The roll-ups of every unit in the workbook's order, four spans each.
     *
     * @param  array<string, array<string, Tally>>  $statuses  by span and unit, of the KPIs measured there
     * @return iterable<array{string, Span, RollUp}>
     */
    public function rollUps(array $statuses): iterable
    {
        $units = [];
        foreach ($this->workbook->units as $unit) {
            $units[$unit->code] = ['parent' => $unit->parent, 'weight' => $unit->weight, 'method' => $unit->rollUp];
        }
        $tree = new UnitTree($units);
        $results = [];
        foreach (Span::cases() as $span) {
            $results[$span->value] = [];
            foreach ($this->workbook->units as $unit) {
                if ($unit->parent === null) {
                    $results[$span->value] += $tree->rollUp($unit->code, $statuses[$span->value] ?? []);
                }
            }
        }
        foreach ($this->workbook->units as $unit) {
            foreach (Span::cases() as $span) {
                yield [$unit->code, $span, $results[$span->value][$unit->code] ?? RollUp::of($unit->rollUp, new Tally)];
            }
        }
    }

    private function assess(KpiEntry $kpi, MeasurementEntry $entry): Assessed
    {
        $placed = $entry->placed;
        $measurement = $this->composition->measurement($placed->kpi, $placed->unit)
            ?? throw new \InvalidArgumentException("The KPI '{$placed->kpi}' is not measured in '{$placed->unit}'.");
        $spans = $courses = [];
        foreach (Span::cases() as $span) {
            $spans[$span->value] = $this->scorecard->assess($measurement, $this->chosen, $span);
            $courses[$span->value] = $this->scorecard->course($measurement, $this->chosen, $span, $spans[$span->value]);
        }
        $past = $this->scorecard->past($measurement, $this->chosen);
        $control = $this->scorecard->control($measurement, $this->chosen);
        $projection = $this->scorecard->projection($measurement, $this->chosen);
        $latest = $this->scorecard->latest($measurement, $this->chosen);

        return new Assessed(
            $placed->kpi,
            $placed->unit,
            $entry->weight,
            $placed->definition->kind,
            $spans,
            $courses,
            $this->scorecard->trend($measurement, $this->chosen),
            $control,
            $projection,
            $this->scorecard->range($measurement, $this->chosen, $projection, $control),
            $past === null ? null : Streak::of($past),
            $this->scorecard->exceptions(
                $measurement,
                $this->chosen,
                $this->span,
                $spans[$this->span->value],
                $past,
                $projection,
                $control,
                $latest !== null && isset($entry->notes[$latest->key()]),
            ),
            $this->withSplits ? self::splits($kpi, $entry, $measurement, $spans) : null,
        );
    }

    /**
     * @param  array<string, Assessment>  $spans
     * @return array<string, array<string, list<SplitPart>>> by split and span
     */
    private static function splits(KpiEntry $kpi, MeasurementEntry $entry, Measurement $measurement, array $spans): array
    {
        $splits = [];
        $actuals = $measurement->actuals;
        foreach ($kpi->splits as $split) {
            if (! $actuals instanceof RecordFigures) {
                break;
            }
            $splits[$split->code] = array_map(fn (Assessment $assessment): array => $split->parts($actuals, $assessment->figures->due), $spans);
        }
        if ($kpi->parts !== [] && ! $entry->placed->isGathered) {
            $typed = new TypedParts(array_replace(array_fill_keys($kpi->parts, new Series([])), $entry->parts));
            $splits[TypedParts::CODE] = array_map(fn (Assessment $assessment): array => $typed->of($assessment->figures->reported, $kpi->definition->accumulation), $spans);
        }

        return $splits;
    }
}
