<?php

declare(strict_types=1);

namespace Kybernet\Core\Measure;

use Brick\Math\BigDecimal;
use Kybernet\Core\Calendar\Period;

/**
 * Figures by period, as they were entered. A period that is not there has no figure, which is never the same as zero.
 */
final readonly class Series implements Figures
{
    /**
     * A machine integer holds 18 digits. Figures of up to 15, brought to the same decimals, leave room to add a
     * thousand of them; whatever is longer is added as decimals of any length.
     */
    private const MACHINE_DIGITS = 15;

    /** @param  array<string, string>  $figures sound figures (see {@see Figure::parse()}) keyed by period, `2026-08` */
    public function __construct(private array $figures) {}

    public function at(Period $period): ?BigDecimal
    {
        $figure = $this->written($period);

        return $figure === null ? null : BigDecimal::of($figure);
    }

    /** The figure as it is stored. */
    public function written(Period $period): ?string
    {
        return $this->figures[$period->key()] ?? null;
    }

    /** @return array<string, string> by period, as they were given */
    public function all(): array
    {
        return $this->figures;
    }

    public function has(Period $period): bool
    {
        return isset($this->figures[$period->key()]);
    }

    public function figure(Period $period): ?Exact
    {
        $figure = $this->written($period);

        return $figure === null ? null : Exact::of($figure);
    }

    public function float(Period $period): ?float
    {
        $figure = $this->written($period);

        return $figure === null ? null : (float) $figure;
    }

    public function gather(array $periods, Accumulation $rule): ?Exact
    {
        return $rule->gather($this, $periods);
    }

    public function whyNone(array $periods): ?string
    {
        return null;
    }

    public function earliest(): ?string
    {
        return $this->figures === [] ? null : min(array_keys($this->figures));
    }

    /**
     * The sum of the periods' figures, exactly; 0 when none has one.
     *
     * @param  list<Period>  $periods
     */
    public function total(array $periods): BigDecimal
    {
        $parts = [];
        $decimals = 0;
        $digits = 0;
        foreach ($periods as $period) {
            $figure = $this->written($period);
            if ($figure !== null) {
                $point = strpos($figure, '.');
                $scale = $point === false ? 0 : strlen($figure) - $point - 1;
                $parts[] = [$figure, $scale];
                $decimals = max($decimals, $scale);
                $digits = max($digits, strlen($figure) - $scale);
            }
        }
        if ($digits + $decimals > self::MACHINE_DIGITS) {
            return array_reduce($parts, fn (BigDecimal $sum, array $part): BigDecimal => $sum->plus($part[0]), BigDecimal::zero());
        }
        $sum = 0;
        foreach ($parts as [$figure, $scale]) {
            $sum += (int) str_replace('.', '', $figure) * 10 ** ($decimals - $scale);
        }

        return BigDecimal::ofUnscaledValue($sum, $decimals);
    }

    /** The same series with one period's figure replaced, or taken out when null. */
    public function with(Period $period, ?BigDecimal $figure): self
    {
        $figures = $this->figures;
        unset($figures[$period->key()]);

        return new self($figure === null ? $figures : [...$figures, $period->key() => (string) $figure]);
    }
}
