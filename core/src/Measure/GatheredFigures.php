<?php

declare(strict_types=1);

namespace Kybernet\Core\Measure;

use Kybernet\Core\Calendar\Period;
use Kybernet\Core\Status\Polarity;

/**
 * The actuals of a KPI gathered over the units below. A period counts as reported when any unit has reported it; it is
 * the figure of those units alone, and {@see missing()} says which are not in it.
 */
final class GatheredFigures implements Figures
{
    /** Of a ratio that is gathered as one: the formula over the gathered operands. */
    public readonly ?FormulaFigures $ratio;

    /**
     * @param  array<string, Measurement>  $members  the KPI in each unit
     * @param  array<string, Measurement>  $weights  the weighting KPI in each unit, for a weighted mean
     * @param  (\Closure(string, Period): bool)|null  $counts  whether a unit may count in a period; null for all
     */
    public function __construct(
        private readonly Gathering $method,
        private readonly array $members,
        private readonly array $weights = [],
        private readonly ?\Closure $counts = null,
    ) {
        $this->ratio = $method === Gathering::Recompute ? $this->ratioOfSums() : null;
    }

    /** Whether no unit measures it at all. */
    public function isEmpty(): bool
    {
        return $this->members === [];
    }

    public function has(Period $period): bool
    {
        return $this->reporting($period) !== [];
    }

    public function figure(Period $period): ?Exact
    {
        $units = $this->reporting($period);
        if ($units === []) {
            return null;
        }
        if ($this->ratio !== null) {
            return $this->ratio->figure($period);
        }
        $figures = [];
        $weights = [];
        foreach ($units as $unit) {
            $figures[] = $this->members[$unit]->actuals->figure($period) ?? Exact::of(0);
            $weights[] = $this->method === Gathering::Weighted ? $this->weights[$unit]->actuals->figure($period) ?? Exact::of(0) : Exact::of(1);
        }

        return self::combine($this->method, $figures, $weights);
    }

    public function float(Period $period): ?float
    {
        return $this->figure($period)?->toFloat();
    }

    public function gather(array $periods, Accumulation $rule): ?Exact
    {
        if ($this->ratio !== null && $rule === Accumulation::Recompute) {
            return $this->ratio->gather($periods, $rule);
        }
        $figures = Exact::known(array_map($this->figure(...), $periods));

        return $figures === [] ? null : $rule->combine($figures);
    }

    public function whyNone(array $periods): ?string
    {
        $reported = array_values(array_filter($periods, $this->has(...)));

        return $reported === [] ? null : $this->ratio?->whyNone($reported);
    }

    public function earliest(): ?string
    {
        $keys = array_filter(array_map(fn (Measurement $member): ?string => $member->actuals->earliest(), $this->members), fn (?string $key): bool => $key !== null);

        return $keys === [] ? null : min($keys);
    }

    /**
     * The units that are not in the figure of the periods, in one of them at least.
     *
     * @param  list<Period>  $periods
     * @return list<string>
     */
    public function missing(array $periods): array
    {
        $missing = [];
        foreach ($periods as $period) {
            $missing += array_fill_keys(array_diff(array_keys($this->members), $this->reporting($period)), true);
        }

        return array_values(array_filter(array_map(strval(...), array_keys($this->members)), fn (string $unit): bool => isset($missing[$unit])));
    }

    /** The targets of the units that have reported, gathered as their figures are; of all units where none has. */
    public function targets(Definition $kpi): Targets
    {
        $isBand = $kpi->polarity === Polarity::Band;
        $lower = [];
        $upper = [];
        foreach ($this->targetPeriods() as $key) {
            $period = Period::parse($key, $kpi->frequency);
            $units = $this->reporting($period);
            $units = $units === [] ? array_keys($this->members) : $units;
            $lower[$key] = $this->target($units, $period, fn (Measurement $member): TargetLine => $member->targets->line);
            $upper[$key] = $isBand ? $this->target($units, $period, fn (Measurement $member): ?TargetLine => $member->targets->upper) : null;
        }
        $line = TargetLine::derived($lower);

        return $isBand ? Targets::band($line, TargetLine::derived($upper)) : Targets::of($line);
    }

    /**
     * The same figures over the units alone that have both periods of a pair.
     *
     * @param  list<array{Period, Period}>  $pairs  a period and the one a year earlier
     */
    public function alike(array $pairs): self
    {
        $both = [];
        foreach ($pairs as [$period, $earlier]) {
            foreach (array_intersect($this->reporting($period), $this->reporting($earlier)) as $unit) {
                $both[$unit][$period->key()] = true;
                $both[$unit][$earlier->key()] = true;
            }
        }

        return new self($this->method, $this->members, $this->weights, fn (string $unit, Period $period): bool => isset($both[$unit][$period->key()]));
    }

    /** @return list<string> units whose figure is in that of the period */
    private function reporting(Period $period): array
    {
        $units = [];
        foreach ($this->members as $unit => $member) {
            if ($member->actuals->has($period)
                && ($this->counts === null || ($this->counts)($unit, $period))
                && ($this->method !== Gathering::Weighted || ($this->weights[$unit] ?? null)?->actuals->has($period) === true)) {
                $units[] = $unit;
            }
        }

        return $units;
    }

    /** @return list<string> keys of the periods in which any unit has a target */
    private function targetPeriods(): array
    {
        $keys = [];
        foreach ($this->members as $member) {
            $keys += array_fill_keys($member->targets->line->periods(), true);
        }

        return array_keys($keys);
    }

    /**
     * @param  list<string>  $units
     * @param  \Closure(Measurement): (TargetLine|null)  $line
     */
    private function target(array $units, Period $period, \Closure $line): ?Exact
    {
        $targets = [];
        $weights = [];
        foreach ($units as $unit) {
            $target = $line($this->members[$unit])?->figure($period);
            if ($target === null) {
                return null;
            }
            $targets[] = $target;
            $weights[] = $this->method === Gathering::Weighted ? ($this->weights[$unit] ?? null)?->actuals->figure($period) ?? Exact::of(1) : Exact::of(1);
        }

        return $targets === [] ? null : self::combine($this->method, $targets, $weights);
    }

    /**
     * @param  non-empty-list<Exact>  $figures
     * @param  non-empty-list<Exact>  $weights  one for each figure
     */
    private static function combine(Gathering $method, array $figures, array $weights): ?Exact
    {
        if ($method === Gathering::Sum) {
            return Accumulation::Sum->combine($figures);
        }
        $total = Accumulation::Sum->combine($weights);
        $weighted = array_map(fn (Exact $figure, Exact $weight): Exact => $figure->times($weight), $figures, $weights);

        return $total->isZero() ? null : Accumulation::Sum->combine($weighted)->dividedBy($total);
    }

    /**
     * The formula over its operands, each gathered over the units in which all of them are there: by its own mean where
     * it has one, otherwise by the sum.
     */
    private function ratioOfSums(): ?FormulaFigures
    {
        $formulas = [];
        foreach ($this->members as $unit => $member) {
            if ($member->actuals instanceof FormulaFigures) {
                $formulas[$unit] = $member->actuals;
            }
        }
        $first = array_values($formulas)[0] ?? null;
        if ($first === null) {
            return null;
        }
        $isWhole = fn (string $unit, Period $period): bool => $formulas[$unit]->has($period) && ($this->counts === null || ($this->counts)($unit, $period));
        $operands = [];
        foreach (array_keys($first->formula()->operands) as $key) {
            $inUnits = array_filter(array_map(fn (FormulaFigures $figures): ?Measurement => $figures->operands()[$key] ?? null, $formulas));
            $definition = (array_values($inUnits)[0] ?? null)?->definition;
            $operands[$key] = $definition === null ? null : new Measurement(
                $definition,
                new self($definition->gathering === Gathering::Mean ? Gathering::Mean : Gathering::Sum, $inUnits, [], $isWhole),
                Targets::none(),
            );
        }

        return new FormulaFigures($first->formula(), $operands, Accumulation::Recompute);
    }
}
