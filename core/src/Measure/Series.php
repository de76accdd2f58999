<?php

declare(strict_types=1);

namespace Kybernet\Core\Measure;

use Brick\Math\BigDecimal;
use Kybernet\Core\Calendar\Period;

/**
 * Figures by month. A month that is not there has no figure, which is never the same as zero.
 */
final readonly class Series
{
    /**
     * A machine integer holds 18 digits. Figures of up to 15, brought to the same decimals, leave room to add a
     * thousand of them; whatever is longer is added as decimals of any length.
     */
    private const MACHINE_DIGITS = 15;

    /** @param  array<string, string>  $figures sound figures (see {@see Figure::parse()}) keyed by month, `2026-08` */
    public function __construct(private array $figures) {}

    public function at(Period $month): ?BigDecimal
    {
        $figure = $this->written($month);

        return $figure === null ? null : BigDecimal::of($figure);
    }

    /** The figure as it is stored. */
    public function written(Period $month): ?string
    {
        return $this->figures[$month->key()] ?? null;
    }

    public function has(Period $month): bool
    {
        return isset($this->figures[$month->key()]);
    }

    /**
     * The sum of the months' figures, exactly; 0 when none has one.
     *
     * @param  list<Period>  $months
     */
    public function total(array $months): BigDecimal
    {
        $parts = [];
        $decimals = 0;
        $digits = 0;
        foreach ($months as $month) {
            $figure = $this->written($month);
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

    /** The same series with one month's figure replaced, or taken out when null. */
    public function with(Period $month, ?BigDecimal $figure): self
    {
        $figures = $this->figures;
        unset($figures[$month->key()]);

        return new self($figure === null ? $figures : [...$figures, $month->key() => (string) $figure]);
    }
}
