<?php

declare(strict_types=1);

namespace Kybernet\Core\Measure;

use Kybernet\Core\Calendar\Period;
use Kybernet\Core\Calendar\Tenure;
use Kybernet\Core\Calendar\Timeline;
use Kybernet\Core\Records\Counters;
use Kybernet\Core\Status\Polarity;

/**
 * Puts measurements together: entered figures as they are, formulas over their operands, gathered ones over the units
 * below. Each is made once, when it is first asked for.
 */
final class Composition
{
    /** @var array<string, array<string, KeptMeasurement>> by KPI and unit */
    private array $placed = [];

    /** @var array<string, array<string, Measurement>> by KPI and unit */
    private array $made = [];

    /** @var array<string, array<string, Measurement|null>> KPIs gathered over the units below for formulas, by KPI and unit */
    private array $madeBelow = [];

    /** @var array<string, list<string>> */
    private array $children = [];

    /**
     * @param  iterable<KeptMeasurement>  $placed  formulas among them must not go round in a circle
     * @param  array<string, string|null>  $parents  the unit above each unit, by code
     * @param  Counters|null  $records  what counts KPIs from records; without it their readings stand for them
     */
    public function __construct(iterable $placed, array $parents, private readonly Timeline $timeline, private readonly ?Counters $records = null)
    {
        foreach ($placed as $each) {
            $this->placed[$each->kpi][$each->unit] = $each;
        }
        foreach ($parents as $unit => $parent) {
            if ($parent !== null) {
                $this->children[$parent][] = $unit;
            }
        }
    }

    /** Null where the KPI is not measured in the unit. */
    public function measurement(string $kpi, string $unit): ?Measurement
    {
        $placed = $this->placed[$kpi][$unit] ?? null;

        return $placed === null ? null : $this->made[$kpi][$unit] ??= $this->make($placed);
    }

    private function make(KeptMeasurement $placed): Measurement
    {
        $figures = match (true) {
            $placed->isGathered => $this->gathered($placed->kpi, $placed->unit, $placed->tenure),
            $placed->definition->formula !== null => new FormulaFigures(
                $placed->definition->formula,
                $this->operands($placed->definition->formula, $placed->unit),
                $placed->definition->accumulation,
                $this->isMeasured($placed->tenure),
            ),
            $placed->definition->counted !== null && $this->records !== null => $this->records->figures($placed, [$placed->unit, ...$this->allBelow($placed->unit)]),
            default => $placed->readings,
        };

        return new Measurement(
            $placed->definition,
            $figures,
            $figures instanceof GatheredFigures ? $figures->targets($placed->definition) : $this->targets($placed),
            $placed->tenure,
            $placed->ownRules,
            $placed->baseline,
            $placed->calls,
            $placed->isGathered || $placed->definition->weightedBy === null ? null : $this->measurement($placed->definition->weightedBy, $placed->unit),
        );
    }

    /** @return array<string, Measurement|null> */
    private function operands(Formula $formula, string $unit): array
    {
        return array_map(fn (Operand $operand): ?Measurement => match ($operand->of) {
            OperandOf::Here => $this->measurement($operand->code, $unit),
            OperandOf::Below => $this->below($operand->code, $unit),
            OperandOf::Prior => $this->standingFor($operand->code, $unit, fn (Measurement $other): Figures => new YearEarlierFigures($other->actuals)),
            OperandOf::Target => $this->standingFor($operand->code, $unit, fn (Measurement $other): Figures => new TargetFigures($other->targets)),
        }, $formula->operands);
    }

    /**
     * A KPI with other figures in the place of its own, gathered by its own rule.
     *
     * @param  \Closure(Measurement): Figures  $figures
     */
    private function standingFor(string $kpi, string $unit, \Closure $figures): ?Measurement
    {
        $other = $this->measurement($kpi, $unit);

        return $other === null ? null : new Measurement($other->definition, $figures($other), SetTargets::none(), $other->tenure);
    }

    /** A KPI gathered over the units below; null where none of them measures it. */
    private function below(string $kpi, string $unit): ?Measurement
    {
        if (isset($this->madeBelow[$kpi]) && array_key_exists($unit, $this->madeBelow[$kpi])) {
            return $this->madeBelow[$kpi][$unit];
        }
        $definition = (array_values($this->placed[$kpi] ?? [])[0] ?? null)?->definition;
        $figures = $definition === null ? null : $this->gathered($kpi, $unit, new Tenure);

        return $this->madeBelow[$kpi][$unit] = $definition === null || $figures === null || $figures->isEmpty() ? null : new Measurement($definition, $figures, SetTargets::none());
    }

    private function gathered(string $kpi, string $unit, Tenure $tenure): GatheredFigures
    {
        $members = [];
        $weights = [];
        $definition = null;
        foreach ($this->allBelow($unit) as $below) {
            $placed = $this->placed[$kpi][$below] ?? null;
            $member = $placed === null || $placed->isGathered ? null : $this->measurement($kpi, $below);
            if ($member !== null) {
                $definition = $member->definition;
                $members[$below] = $member;
                if ($member->weight !== null) {
                    $weights[$below] = $member->weight;
                }
            }
        }
        $isMeasured = $this->isMeasured($tenure);

        return new GatheredFigures(
            $definition->gathering ?? Gathering::Sum,
            $members,
            $weights,
            $this->timeline,
            $isMeasured === null ? null : fn (string $member, Period $period): bool => $isMeasured($period),
        );
    }

    private function targets(KeptMeasurement $placed): Targets
    {
        $formula = $placed->definition->targetFormula;
        $isBand = $placed->definition->polarity === Polarity::Band;
        // A KPI whose targets are worked out takes no share of what is set for a year.
        $isShared = $formula === null;
        $lower = $this->line($placed, $placed->targets, $placed->yearTargets, $isShared);
        $set = $isBand
            ? SetTargets::band($lower, $this->line($placed, $placed->upperTargets, $placed->upperYearTargets, $isShared))
            : SetTargets::of($lower);
        // As it is tried out, a KPI may have become a band, or be one no longer, before its formulas have followed.
        if ($formula === null || $formula->isBand() !== $isBand) {
            return $set;
        }
        $figures = fn (Formula $formula): FormulaFigures => new FormulaFigures(
            $formula,
            $this->operands($formula, $placed->unit),
            Accumulation::Recompute,
            $this->isMeasured($placed->tenure),
        );

        return new FormulaTargets($set, fn (): array => [$figures($formula->line), $formula->upper === null ? null : $figures($formula->upper)]);
    }

    /** @param  array<string, string>  $years  figures set for whole years */
    private function line(KeptMeasurement $placed, Series $own, array $years, bool $isShared): TargetLine
    {
        return $years === [] || ! $isShared ? TargetLine::of($own, $years) : TargetLine::planned(
            $own,
            $years,
            $placed->definition->frequency,
            $placed->definition->accumulation,
            $placed->tenure,
            $this->timeline,
        );
    }

    /** @return (\Closure(Period): bool)|null null where it is measured always */
    private function isMeasured(Tenure $tenure): ?\Closure
    {
        return $tenure->isOpen() ? null : fn (Period $period): bool => $tenure->holds($period, $this->timeline->year);
    }

    /** @return list<string> every unit below, nearer ones first */
    private function allBelow(string $unit): array
    {
        $found = $this->children[$unit] ?? [];
        foreach ($this->children[$unit] ?? [] as $child) {
            $found = [...$found, ...$this->allBelow($child)];
        }

        return $found;
    }
}
