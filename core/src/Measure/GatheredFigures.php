<?php

declare(strict_types=1);

namespace Kybernet\Core\Measure;

use Kybernet\Core\Calendar\Period;
use Kybernet\Core\Calendar\Timeline;

/**
 * The actuals of a KPI gathered over the units below. A period counts as reported when any unit in whose time it lies
 * has reported it; it is the figure of those units alone, and {@see missing()} says which are not in it.
 */
final class GatheredFigures implements Figures
{
    private FormulaFigures|false|null $ratio = false;

    /** @var array<string, Exact|null> */
    private array $figures = [];

    /** @var array<string, Absence> */
    private array $absences = [];

    /** @var array<string, list<string>> */
    private array $reporting = [];

    /**
     * @param  array<string, Measurement>  $members  the KPI in each unit
     * @param  array<string, Measurement>  $weights  the weighting KPI in each unit, for a weighted mean
     * @param  (\Closure(string, Period): bool)|null  $counts  whether a unit may count in a period; null for all
     * @param  \ArrayObject<string, self>|null  $shared  what operands of one formula gather, so that formulas over formulas gather each once
     * @param  (\Closure(string, Period): bool)|null  $outermost  of the formula that all of it is worked out for
     */
    public function __construct(
        private readonly Gathering $method,
        private readonly array $members,
        private readonly array $weights,
        private readonly Timeline $timeline,
        private readonly ?\Closure $counts = null,
        private readonly ?\ArrayObject $shared = null,
        private readonly ?\Closure $outermost = null,
    ) {}

    /** Of a ratio that is gathered as one: the formula over the gathered operands. */
    public function ratio(): ?FormulaFigures
    {
        return $this->ratio === false ? $this->ratio = $this->method === Gathering::Recompute ? $this->ratioOfSums() : null : $this->ratio;
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

    /** It is expected where one of its units is. */
    public function absence(Period $period): Absence
    {
        return $this->absences[$period->key()] ??= $this->lack($period);
    }

    private function lack(Period $period): Absence
    {
        $found = null;
        foreach ($this->members as $member) {
            $absence = $member->tenure->holds($period, $this->timeline->year) && ! $member->actuals->has($period) ? $member->actuals->absence($period) : null;
            if ($absence === Absence::Missing) {
                return $absence;
            }
            $found = $absence === Absence::Unknown ? $absence : $found ?? $absence;
        }

        return $found ?? Absence::Missing;
    }

    public function figure(Period $period): ?Exact
    {
        $key = $period->key();

        return array_key_exists($key, $this->figures) ? $this->figures[$key] : $this->figures[$key] = $this->worked($period);
    }

    private function worked(Period $period): ?Exact
    {
        $units = $this->reporting($period);
        if ($units === []) {
            return null;
        }
        if ($this->ratio() !== null) {
            return $this->ratio()->figure($period);
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
        if ($this->ratio() !== null && $rule === Accumulation::Recompute) {
            return $this->ratio()->gather($periods, $rule);
        }
        $figures = Exact::known(array_map($this->figure(...), $periods));

        return $figures === [] ? null : $rule->combine($figures);
    }

    public function whyNone(array $periods): ?string
    {
        $reported = array_values(array_filter($periods, $this->has(...)));

        return $reported === [] ? null : $this->ratio()?->whyNone($reported);
    }

    public function earliest(): ?string
    {
        // That of a ratio is asked of its units, each of which works it out once.
        $keys = array_filter(array_map(fn (Measurement $member): ?string => $member->actuals->earliest(), $this->members), fn (?string $key): bool => $key !== null);

        return $keys === [] ? null : min($keys);
    }

    /**
     * The units that owe a figure in one of the periods at least: those in whose time it lies and that are not in it.
     *
     * @param  list<Period>  $periods
     * @return list<string>
     */
    public function missing(array $periods): array
    {
        $missing = [];
        foreach ($periods as $period) {
            $reporting = array_fill_keys($this->reporting($period), true);
            foreach ($this->members as $unit => $member) {
                if (! isset($reporting[$unit]) && $member->tenure->holds($period, $this->timeline->year) && ($member->actuals->has($period) || $member->actuals->absence($period) === Absence::Missing)) {
                    $missing[$unit] = true;
                }
            }
        }

        return array_values(array_filter(array_map(strval(...), array_keys($this->members)), fn (string $unit): bool => isset($missing[$unit])));
    }

    /** What the units aim at together. */
    public function targets(Definition $kpi): GatheredTargets
    {
        return new GatheredTargets($this, $this->members, $this->method === Gathering::Sum, $kpi, $this->timeline);
    }

    /** The same figures over the units alone that have a target too. */
    public function aimed(): self
    {
        return $this->over(fn (string $unit, Period $period): bool => $this->members[$unit]->targets->has($period));
    }

    /**
     * The same figures over the units of a year, each in its own time, a year earlier; null unless each has all of them.
     *
     * @param  list<Period>  $periods  of this year
     */
    public function yearEarlier(array $periods): ?self
    {
        $there = [];
        foreach ($periods as $period) {
            $earlier = $period->yearEarlier();
            if ($earlier === null) {
                continue;
            }
            foreach ($this->members as $unit => $member) {
                if ($member->tenure->holds($period, $this->timeline->year)) {
                    if (! in_array($unit, $this->reporting($earlier), true)) {
                        if ($member->actuals->has($earlier) || $member->actuals->absence($earlier) !== Absence::Nothing) {
                            return null;
                        }

                        continue;
                    }
                    $there[$unit][$earlier->key()] = true;
                }
            }
        }

        return $there === [] ? null : $this->over(fn (string $unit, Period $period): bool => isset($there[$unit][$period->key()]));
    }

    /** @param  \Closure(string, Period): bool  $counts */
    private function over(\Closure $counts): self
    {
        $already = $this->counts;

        return new self($this->method, $this->members, $this->weights, $this->timeline, $already === null ? $counts : fn (string $unit, Period $period): bool => $already($unit, $period) && $counts($unit, $period));
    }

    /**
     * The same figures over the units alone that have both periods of a pair.
     *
     * @param  list<array{Period, Period}>  $pairs  a period and an earlier one
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

        return $this->over(fn (string $unit, Period $period): bool => isset($both[$unit][$period->key()]));
    }

    /** @return list<string> units whose figure is in that of the period */
    public function reporting(Period $period): array
    {
        $key = $period->key();
        if (! isset($this->reporting[$key])) {
            $units = [];
            foreach ($this->members as $unit => $member) {
                if ($member->tenure->holds($period, $this->timeline->year)
                    && $member->actuals->has($period)
                    && ($this->counts === null || ($this->counts)($unit, $period))
                    && ($this->method !== Gathering::Weighted || ($this->weights[$unit] ?? null)?->actuals->has($period) === true)) {
                    $units[] = $unit;
                }
            }
            $this->reporting[$key] = $units;
        }

        return $this->reporting[$key];
    }

    /**
     * Targets of units in a period, as one. Levels of a ratio, and what is weighted by what is not known, count alike.
     *
     * @param  non-empty-array<string, Exact>  $targets  by unit
     */
    public function levelled(array $targets, Period $period): ?Exact
    {
        $figures = array_values($targets);
        $weights = $this->method !== Gathering::Weighted ? [] : Exact::known(array_map(
            fn (string $unit): ?Exact => ($this->weights[$unit] ?? null)?->actuals->figure($period),
            array_map(strval(...), array_keys($targets)),
        ));

        return count($weights) === count($figures)
            ? self::combine($this->method, $figures, $weights)
            : ($this->method === Gathering::Sum ? Accumulation::Sum : Accumulation::Mean)->combine($figures);
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
     * The formula over its operands, each gathered over the units in which all of them are there: in its own way where
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
        // Where the outermost formula has all of its operands, those inside of it have theirs; what it may do without
        // is asked for here.
        $outer = $this->outermost ?? $this->counts;
        $isWhole = fn (string $unit, Period $period): bool => isset($formulas[$unit]) && $this->members[$unit]->tenure->holds($period, $this->timeline->year) && $formulas[$unit]->has($period) && ($outer === null || $outer($unit, $period));
        $shared = $this->shared ?? new \ArrayObject;
        $operands = [];
        foreach (array_keys($first->formula()->operands) as $key) {
            $inUnits = array_filter(array_map(fn (FormulaFigures $figures): ?Measurement => $figures->operands()[$key] ?? null, $formulas));
            $definition = (array_values($inUnits)[0] ?? null)?->definition;
            if ($definition === null) {
                $operands[$key] = null;

                continue;
            }
            $name = implode(' ', array_map(spl_object_id(...), [...$inUnits, $first]));
            $shared[$name] ??= new self($this->operandMethod($definition, $inUnits), $inUnits, $this->operandWeights($definition, $inUnits), $this->timeline, $isWhole, $shared, $this->outermost ?? $isWhole);
            $operands[$key] = new Measurement($definition, $shared[$name], SetTargets::none());
        }

        return new FormulaFigures($first->formula(), $operands, Accumulation::Recompute);
    }

    /** @param  array<string, Measurement>  $inUnits */
    private function operandMethod(Definition $operand, array $inUnits): Gathering
    {
        return match ($operand->gathering) {
            null => Gathering::Sum,
            // A ratio is gathered as one only where it is worked out in the units.
            Gathering::Recompute => (array_values($inUnits)[0] ?? null)?->actuals instanceof FormulaFigures ? Gathering::Recompute : Gathering::Sum,
            // Its weights are measured where it is, but are not among what the formula names.
            Gathering::Weighted => $this->operandWeights($operand, $inUnits) === [] ? Gathering::Mean : Gathering::Weighted,
            default => $operand->gathering,
        };
    }

    /**
     * @param  array<string, Measurement>  $inUnits
     * @return array<string, Measurement>
     */
    private function operandWeights(Definition $operand, array $inUnits): array
    {
        return $operand->weightedBy === null ? [] : array_filter(array_map(fn (Measurement $member): ?Measurement => $member->weight, $inUnits));
    }
}
