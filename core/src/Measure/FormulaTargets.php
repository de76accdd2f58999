<?php

declare(strict_types=1);

namespace Kybernet\Core\Measure;

use Closure;
use Kybernet\Core\Calendar\Period;

/**
 * Targets that are worked out from other KPIs. A figure that somebody has set for a period goes before, and with one of
 * those among several periods all of them are gathered as set ones are; otherwise the formula is applied to operands
 * gathered over the periods.
 */
final class FormulaTargets implements Targets
{
    /** @var array{FormulaFigures, FormulaFigures|null}|null */
    private ?array $made = null;

    /** @var array<string, Goal|null> */
    private array $goals = [];

    /**
     * @param  Closure(): array{FormulaFigures, FormulaFigures|null}  $make  the target, or the lower and the upper one; called when first needed, as KPIs may name each other
     */
    public function __construct(private readonly SetTargets $set, private readonly Closure $make) {}

    public function has(Period $period): bool
    {
        return $this->goal($period) !== null;
    }

    public function goal(Period $period): ?Goal
    {
        $key = $period->key();
        if (! array_key_exists($key, $this->goals)) {
            $this->goals[$key] = $this->set->goal($period) ?? $this->worked([$period]);
        }

        return $this->goals[$key];
    }

    public function gather(array $periods, Accumulation $rule): ?Goal
    {
        $aimed = array_values(array_filter($periods, $this->has(...)));

        return match (true) {
            $aimed === [] => null,
            count($aimed) === 1 => $this->goal($aimed[0]),
            $this->isSetIn($aimed) => Goal::combine($this->goals($aimed), $rule->ofTargets()),
            default => $this->worked($aimed),
        };
    }

    public function ofYear(Period $year, array $periods, Accumulation $rule): ?Goal
    {
        $set = $this->set->forYear($year);
        if ($set !== null) {
            return $set;
        }
        $goals = $this->goals($periods);

        return match (true) {
            $goals === [], count($goals) < count($periods) => null,
            ! $this->isSetIn($periods) => $this->worked($periods),
            // Of a band: a total's by their sum and any other's by their mean, as of bands that were set.
            $goals[0]->band !== null && $rule !== Accumulation::Sum => Goal::combine($goals, Accumulation::Mean),
            default => Goal::combine($goals, $rule->ofTargets()),
        };
    }

    public function whyNone(array $periods): ?string
    {
        [$lower, $upper] = $this->figures();

        return $lower->whyNone($periods) ?? $upper?->whyNone($periods) ?? ($upper === null ? null : 'the lower end of its band would be above the upper one');
    }

    public function set(): SetTargets
    {
        return $this->set;
    }

    /** @param  list<Period>  $periods */
    private function isSetIn(array $periods): bool
    {
        foreach ($periods as $period) {
            if ($this->set->has($period)) {
                return true;
            }
        }

        return false;
    }

    /**
     * @param  list<Period>  $periods
     * @return list<Goal> of those that have one
     */
    private function goals(array $periods): array
    {
        return array_values(array_filter(array_map($this->goal(...), $periods)));
    }

    /** @return array{FormulaFigures, FormulaFigures|null} */
    private function figures(): array
    {
        return $this->made ??= ($this->make)();
    }

    /** @param  list<Period>  $periods */
    private function worked(array $periods): ?Goal
    {
        [$lower, $upper] = $this->figures();
        $goal = Goal::of(
            $lower->gather($periods, Accumulation::Recompute),
            $upper?->gather($periods, Accumulation::Recompute),
            $upper !== null,
            TargetFrom::Formula,
        );

        return $goal?->band !== null && $goal->band->low->compareTo($goal->band->high) > 0 ? null : $goal;
    }
}
