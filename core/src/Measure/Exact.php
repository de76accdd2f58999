<?php

declare(strict_types=1);

namespace Kybernet\Core\Measure;

use Brick\Math\BigDecimal;
use Brick\Math\Exception\DivisionByZeroException;
use Brick\Math\RoundingMode;

/**
 * An exact figure that may be a quotient, such as a mean that keeps its sum and its count.
 *
 * Comparisons multiply across, so that a mean of thirds which lies exactly on a limit is on it. A division is
 * carried out only when the figure is given out.
 *
 * Nearly all figures and what is made of them fit machine integers, which are an order of magnitude faster than decimals
 * of any length. An operation whose result does not fit is carried out on those: a PHP integer that overflows becomes a
 * float, which tells.
 */
final readonly class Exact
{
    /** Decimals of a figure that is given out. */
    private const DECIMALS = 12;

    /** A power of ten that fits a machine integer. */
    private const MOST_POWER = 18;

    /**
     * The figure is units ÷ 10^scale ÷ divisor, or big ÷ bigDivisor where these are there.
     *
     * @param  int<0, max>  $scale
     * @param  int<1, max>  $divisor
     */
    private function __construct(
        private int $units,
        private int $scale = 0,
        private int $divisor = 1,
        private ?BigDecimal $big = null,
        private ?BigDecimal $bigDivisor = null,
    ) {}

    public static function of(BigDecimal|int|string $figure): self
    {
        if (is_int($figure)) {
            return new self($figure);
        }
        $text = (string) $figure;
        $point = strpos($text, '.');
        if (strlen($text) > self::MOST_POWER || (is_string($figure) && preg_match('/\A-?\d+(?:\.\d+)?\z/', $text) !== 1)) {
            return self::big(BigDecimal::of($figure));
        }

        return $point === false ? new self((int) $text) : new self((int) str_replace('.', '', $text), max(0, strlen($text) - $point - 1));
    }

    /** @param  positive-int  $count */
    public static function mean(self $sum, int $count): self
    {
        return $count === 1 ? $sum : $sum->dividedBy(new self($count));
    }

    /**
     * The sum of figures as they are stored, of which nearly all fit machine integers; 0 when there is none.
     *
     * @param  list<string>  $figures  sound ones, see {@see Figure::parse()}
     */
    public static function total(array $figures): self
    {
        $scales = [];
        foreach ($figures as $figure) {
            $point = strpos($figure, '.');
            $scales[] = $point === false ? 0 : max(0, strlen($figure) - $point - 1);
        }
        $decimals = $scales === [] ? 0 : max($scales);
        $sum = 0;
        foreach ($figures as $index => $figure) {
            if (strlen($figure) + $decimals > self::MOST_POWER) {
                return array_reduce($figures, fn (self $sum, string $figure): self => $sum->plus(self::of($figure)), new self(0));
            }
            $sum += (int) str_replace('.', '', $figure) * 10 ** ($decimals - $scales[$index]);
        }

        return is_int($sum) ? new self($sum, $decimals) : array_reduce($figures, fn (self $sum, string $figure): self => $sum->plus(self::of($figure)), new self(0));
    }

    /**
     * Those that are there.
     *
     * @param  array<array-key, self|null>  $figures
     * @return list<self> in the same order
     */
    public static function known(array $figures): array
    {
        return array_values(array_filter($figures, fn (?self $figure): bool => $figure !== null));
    }

    public function minus(self $that): self
    {
        return $this->plus($that->negated());
    }

    public function plus(self $that): self
    {
        if ($this->big === null && $that->big === null) {
            [$one, $other, $divisor] = $this->divisor === $that->divisor
                ? [$this->units, $that->units, $this->divisor]
                : [$this->units * $that->divisor, $that->units * $this->divisor, $this->divisor * $that->divisor];
            $gap = $this->scale - $that->scale;
            if ($gap > 0) {
                $other *= self::power($gap);
            } elseif ($gap < 0) {
                $one *= self::power(-$gap);
            }
            $units = $one + $other;
            if (is_int($units) && is_int($divisor)) {
                return new self($units, max($this->scale, $that->scale), $divisor);
            }
        }
        [$one, $by] = $this->fraction();
        [$other, $otherBy] = $that->fraction();

        return $by->isEqualTo($otherBy)
            ? self::big($one->plus($other), $by)
            : self::big($one->multipliedBy($otherBy)->plus($other->multipliedBy($by)), $by->multipliedBy($otherBy));
    }

    public function times(self|BigDecimal|int $factor): self
    {
        if (is_int($factor)) {
            $units = $this->units * $factor;
            if ($this->big === null && is_int($units)) {
                return new self($units, $this->scale, $this->divisor);
            }
            $factor = new self($factor);
        } elseif ($factor instanceof BigDecimal) {
            $factor = self::of($factor);
        }
        if ($this->big === null && $factor->big === null) {
            $units = $this->units * $factor->units;
            $divisor = $this->divisor * $factor->divisor;
            if (is_int($units) && is_int($divisor)) {
                return new self($units, $this->scale + $factor->scale, $divisor);
            }
        }
        [$one, $by] = $this->fraction();
        [$other, $otherBy] = $factor->fraction();

        return self::big($one->multipliedBy($other), $by->multipliedBy($otherBy));
    }

    /** @throws DivisionByZeroException */
    public function dividedBy(self $that): self
    {
        if ($that->isZero()) {
            throw DivisionByZeroException::divisionByZero();
        }
        if ($this->big === null && $that->big === null) {
            $gap = $this->scale - $that->scale;
            $units = $this->units * $that->divisor * ($gap < 0 ? self::power(-$gap) : 1);
            $divisor = $this->divisor * $that->units;
            if (is_int($units) && is_int($divisor) && $divisor !== PHP_INT_MIN && $units !== PHP_INT_MIN) {
                return $divisor < 0 ? new self(-$units, max(0, $gap), -$divisor) : new self($units, max(0, $gap), max(1, $divisor));
            }
        }
        [$one, $by] = $this->fraction();
        [$other, $otherBy] = $that->fraction();
        $divisor = $by->multipliedBy($other);
        $dividend = $one->multipliedBy($otherBy);

        return $divisor->isNegative() ? self::big($dividend->negated(), $divisor->negated()) : self::big($dividend, $divisor);
    }

    /** No smaller than the least and no larger than the most; null leaves that side open. */
    public function clamp(?self $least, ?self $most): self
    {
        return match (true) {
            $least !== null && $this->compareTo($least) < 0 => $least,
            $most !== null && $this->compareTo($most) > 0 => $most,
            default => $this,
        };
    }

    public function negated(): self
    {
        return $this->big === null && $this->units !== PHP_INT_MIN
            ? new self(-$this->units, $this->scale, $this->divisor)
            : self::big($this->fraction()[0]->negated(), $this->fraction()[1]);
    }

    public function abs(): self
    {
        return $this->sign() < 0 ? $this->negated() : $this;
    }

    public function isZero(): bool
    {
        return $this->sign() === 0;
    }

    /** −1, 0 or 1. */
    public function sign(): int
    {
        return $this->big === null ? $this->units <=> 0 : $this->big->getSign();
    }

    /** Below 0 when this figure is the smaller one, 0 when they are equal, above 0 when it is the larger one. */
    public function compareTo(self $that): int
    {
        if ($this->big === null && $that->big === null) {
            $gap = $this->scale - $that->scale;
            $one = $this->units * $that->divisor * ($gap < 0 ? self::power(-$gap) : 1);
            $other = $that->units * $this->divisor * ($gap > 0 ? self::power($gap) : 1);
            if (is_int($one) && is_int($other)) {
                return $one <=> $other;
            }
        }
        [$one, $by] = $this->fraction();
        [$other, $otherBy] = $that->fraction();

        return $one->multipliedBy($otherBy)->compareTo($other->multipliedBy($by));
    }

    /** The figure as it is given out: at most 12 decimals, rounded half away from zero, no trailing zeros. */
    public function toDecimal(): BigDecimal
    {
        return BigDecimal::of((string) $this);
    }

    /** The same, still as a figure to go on calculating with: what a division inside a formula gives. */
    public function givenOut(): self
    {
        return $this->isDecimal() ? $this : self::of((string) $this);
    }

    /** For statistics, which are made on floats. */
    public function toFloat(): float
    {
        // Below 2^53 both are exact as floats, so that their quotient is the float nearest to the figure.
        if ($this->big === null && abs($this->units) < 2 ** 53 && $this->scale <= self::MOST_POWER) {
            $float = $this->units / 10 ** $this->scale;

            return $this->divisor === 1 ? (float) $float : $float / $this->divisor;
        }
        [$dividend, $divisor] = $this->fraction();

        return $dividend->toFloat() / $divisor->toFloat();
    }

    /** @param  non-negative-int  $decimals how many decimals are kept, rounded half away from zero */
    public function rounded(int $decimals): BigDecimal
    {
        $units = $this->big === null ? $this->roundedUnits($decimals) : null;
        if ($units !== null) {
            return BigDecimal::ofUnscaledValue($units, $decimals);
        }
        [$dividend, $divisor] = $this->fraction();

        return $dividend->dividedBy($divisor, $decimals, RoundingMode::HALF_UP);
    }

    public function __toString(): string
    {
        $decimals = $this->isDecimal() ? $this->scale : self::DECIMALS;
        $units = $this->big === null ? $this->roundedUnits($decimals) : null;
        if ($units === null) {
            return (string) $this->rounded(self::DECIMALS)->stripTrailingZeros();
        }
        if ($decimals === 0) {
            return (string) $units;
        }
        $digits = str_pad((string) abs($units), $decimals + 1, '0', STR_PAD_LEFT);

        return ($units < 0 ? '-' : '').rtrim(rtrim(substr($digits, 0, -$decimals).'.'.substr($digits, -$decimals), '0'), '.');
    }

    /** Whether it is given out as it stands. */
    private function isDecimal(): bool
    {
        return $this->big === null && $this->divisor === 1 && $this->scale <= self::DECIMALS;
    }

    /**
     * The figure in units of 10^-decimals, rounded half away from zero; null where that does not fit.
     *
     * @param  int<0, max>  $decimals
     */
    private function roundedUnits(int $decimals): ?int
    {
        $gap = $decimals - $this->scale;
        $divisor = $gap < 0 ? $this->divisor * self::power(-$gap) : $this->divisor;
        $factor = $gap > 0 ? self::power($gap) : 1;
        if (! is_int($divisor) || ! is_int($factor) || $this->units === PHP_INT_MIN) {
            return null;
        }
        $size = abs($this->units);
        if ($divisor === 1) {
            $rounded = $size * $factor;
        } else {
            // Whole units first, so that what is left is small enough to be brought to the decimals.
            $left = ($size % $divisor) * $factor;
            if (! is_int($left)) {
                return null;
            }
            $rest = $left % $divisor;
            $rounded = intdiv($size, $divisor) * $factor + intdiv($left, $divisor) + ($rest >= $divisor - $rest ? 1 : 0);
        }

        return is_int($rounded) ? ($this->units < 0 ? -$rounded : $rounded) : null;
    }

    /** @return array{BigDecimal, BigDecimal} dividend and divisor as decimals of any length */
    public function fraction(): array
    {
        return $this->big === null
            ? [BigDecimal::ofUnscaledValue($this->units, $this->scale), BigDecimal::of($this->divisor)]
            : [$this->big, $this->bigDivisor ?? BigDecimal::one()];
    }

    private static function big(BigDecimal $dividend, ?BigDecimal $divisor = null): self
    {
        return new self(0, 0, 1, $dividend, $divisor);
    }

    /** As a float where it does not fit, which makes a float of whatever it is multiplied with. */
    private static function power(int $exponent): int|float
    {
        return 10 ** $exponent;
    }
}
