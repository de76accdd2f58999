<?php

declare(strict_types=1);

namespace Kybernet\Core\Measure;

use Kybernet\Core\Calendar\Period;

/**
 * The actuals of a formula KPI, worked out from the KPIs that the formula names.
 *
 * Under `recompute` a period counts as reported when every operand is there, and a span gathers each operand by the
 * operand's own rule before the formula is applied. Under any other rule a period counts when the formula has a
 * value, and the values are gathered.
 */
final class FormulaFigures implements Figures
{
    /** @var array<string, bool> */
    private array $complete = [];

    /** @var array<string, Absence> */
    private array $absences = [];

    /** @var array<string, Exact|null> */
    private array $values = [];

    /** @var array<string, Exact|null> figures of several periods: formulas over formulas ask for the same again and again */
    private array $spans = [];

    private string|false|null $earliest = false;

    /**
     * @param  array<string, Measurement|null>  $operands  by the keys of the formula's operands; null where it is not measured
     * @param  (\Closure(Period): bool)|null  $isMeasured  whether the KPI is measured in the period at all; null for always
     */
    public function __construct(
        private readonly Formula $formula,
        private readonly array $operands,
        private readonly Accumulation $rule,
        private readonly ?\Closure $isMeasured = null,
    ) {}

    public function has(Period $period): bool
    {
        return $this->rule === Accumulation::Recompute ? $this->isComplete($period) : $this->figure($period) !== null;
    }

    /** It is not expected where an operand that it needs is not; one in orzero() it does not need. */
    public function absence(Period $period): Absence
    {
        return $this->absences[$period->key()] ??= $this->lack($period);
    }

    private function lack(Period $period): Absence
    {
        $found = Absence::Missing;
        foreach ($this->formula->operands as $key => $operand) {
            $figures = ($this->operands[$key] ?? null)?->actuals;
            $absence = $operand->orZero || $figures === null || $figures->has($period) ? Absence::Missing : $figures->absence($period);
            if ($absence === Absence::Unknown) {
                return $absence;
            }
            $found = $absence === Absence::Nothing ? $absence : $found;
        }

        return $found;
    }

    public function figure(Period $period): ?Exact
    {
        $key = $period->key();
        if (! array_key_exists($key, $this->values)) {
            $this->values[$key] = $this->isComplete($period) ? $this->evaluate([$period]) : null;
        }

        return $this->values[$key];
    }

    public function float(Period $period): ?float
    {
        return $this->figure($period)?->toFloat();
    }

    public function gather(array $periods, Accumulation $rule): ?Exact
    {
        if ($periods === []) {
            return null;
        }
        if ($rule === Accumulation::Recompute) {
            if (count($periods) === 1) {
                return $this->figure($periods[0]);
            }
            $key = implode(' ', array_map(fn (Period $period): string => $period->key(), $periods));

            return array_key_exists($key, $this->spans) ? $this->spans[$key] : $this->spans[$key] = $this->evaluate($periods);
        }
        $values = Exact::known(array_map($this->figure(...), $periods));

        return $values === [] ? null : $rule->combine($values);
    }

    public function whyNone(array $periods): ?string
    {
        foreach ($periods as $period) {
            if (! $this->isComplete($period)) {
                $missing = $this->firstMissing($period);

                return $missing === null ? null : "{$missing} has no figure for {$period->words()}";
            }
        }
        try {
            $this->formula->evaluate($this->gathered($periods));
        } catch (NoValue $none) {
            return $none->getMessage();
        }

        return null;
    }

    public function earliest(): ?string
    {
        if ($this->earliest === false) {
            $keys = array_filter(array_map(fn (?Measurement $operand): ?string => $operand?->actuals->earliest(), $this->operands), fn (?string $key): bool => $key !== null);
            $this->earliest = $keys === [] ? null : min($keys);
        }

        return $this->earliest;
    }

    public function formula(): Formula
    {
        return $this->formula;
    }

    /** @return array<string, Measurement|null> by the keys of the formula's operands */
    public function operands(): array
    {
        return $this->operands;
    }

    /** Whether every operand is there: those in orzero() may be missing where some other one is. */
    private function isComplete(Period $period): bool
    {
        return $this->complete[$period->key()] ??= ($this->isMeasured === null || ($this->isMeasured)($period)) && $this->firstMissing($period) === null;
    }

    private function firstMissing(Period $period): ?string
    {
        $missing = null;
        $present = false;
        foreach ($this->formula->operands as $key => $operand) {
            $has = ($this->operands[$key] ?? null)?->actuals->has($period) === true;
            if (! $has && ! $operand->orZero) {
                return $key;
            }
            $present = $present || $has;
            $missing ??= $has ? null : $key;
        }

        return $present ? null : $missing;
    }

    /** @param  non-empty-list<Period>  $periods  all of them complete */
    private function evaluate(array $periods): ?Exact
    {
        try {
            return $this->formula->evaluate($this->gathered($periods));
        } catch (NoValue) {
            return null;
        }
    }

    /**
     * @param  list<Period>  $periods  all of them complete
     * @return array<string, Exact|null>
     */
    private function gathered(array $periods): array
    {
        $figures = [];
        foreach ($this->formula->operands as $key => $operand) {
            $measurement = $this->operands[$key] ?? null;
            if (! $operand->orZero) {
                $figures[$key] = $measurement?->gather($periods);
            } else {
                // It excuses what has no readings, not a ratio that has them and divides by zero.
                $there = $measurement === null ? [] : array_values(array_filter($periods, $measurement->actuals->has(...)));
                $figures[$key] = $measurement === null || $there === [] ? Exact::of(0) : $measurement->gather($there);
            }
        }

        return $figures;
    }
}
