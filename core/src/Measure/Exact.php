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
 */
final readonly class Exact
{
    /** Decimals of a figure that is given out. */
    private const DECIMALS = 12;

    /** @param  BigDecimal|null  $divisor above 0; null stands for 1, the common case, and saves the arithmetic */
    private function __construct(private BigDecimal $dividend, private ?BigDecimal $divisor = null) {}

    public static function of(BigDecimal|int|string $figure): self
    {
        return new self(BigDecimal::of($figure));
    }

    /** @param  positive-int  $count */
    public static function mean(BigDecimal $sum, int $count): self
    {
        return new self($sum, $count === 1 ? null : BigDecimal::of($count));
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
        if ($this->divisor === null && $that->divisor === null) {
            return new self($this->dividend->minus($that->dividend));
        }
        if ($this->divisor !== null && $that->divisor !== null && $this->divisor->isEqualTo($that->divisor)) {
            return new self($this->dividend->minus($that->dividend), $this->divisor);
        }

        return new self(
            self::scaled($this->dividend, $that->divisor)->minus(self::scaled($that->dividend, $this->divisor)),
            $that->divisor === null ? $this->divisor : self::scaled($that->divisor, $this->divisor),
        );
    }

    public function plus(self $that): self
    {
        return $this->minus($that->negated());
    }

    public function times(self|BigDecimal|int $factor): self
    {
        if (! $factor instanceof self) {
            return new self($this->dividend->multipliedBy($factor), $this->divisor);
        }

        return new self(
            $this->dividend->multipliedBy($factor->dividend),
            $factor->divisor === null ? $this->divisor : self::scaled($factor->divisor, $this->divisor),
        );
    }

    /** @throws DivisionByZeroException */
    public function dividedBy(self $that): self
    {
        if ($that->isZero()) {
            throw DivisionByZeroException::divisionByZero();
        }
        $dividend = self::scaled($this->dividend, $that->divisor);
        $divisor = self::scaled($that->dividend, $this->divisor);

        return $divisor->isNegative() ? new self($dividend->negated(), $divisor->negated()) : new self($dividend, $divisor);
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
        return new self($this->dividend->negated(), $this->divisor);
    }

    public function abs(): self
    {
        return $this->dividend->isNegative() ? $this->negated() : $this;
    }

    public function isZero(): bool
    {
        return $this->dividend->isZero();
    }

    /** −1, 0 or 1. */
    public function sign(): int
    {
        return $this->dividend->getSign();
    }

    /** Below 0 when this figure is the smaller one, 0 when they are equal, above 0 when it is the larger one. */
    public function compareTo(self $that): int
    {
        return self::scaled($this->dividend, $that->divisor)->compareTo(self::scaled($that->dividend, $this->divisor));
    }

    /** The figure as it is given out: at most 12 decimals, rounded half away from zero, no trailing zeros. */
    public function toDecimal(): BigDecimal
    {
        return $this->divisor === null && $this->dividend->getScale() <= self::DECIMALS
            ? $this->dividend->stripTrailingZeros()
            : $this->rounded(self::DECIMALS)->stripTrailingZeros();
    }

    /** The same, still as a figure to go on calculating with: what a division inside a formula gives. */
    public function givenOut(): self
    {
        return $this->divisor === null && $this->dividend->getScale() <= self::DECIMALS ? $this : new self($this->rounded(self::DECIMALS));
    }

    /** For statistics, which are made on floats. */
    public function toFloat(): float
    {
        return $this->divisor === null ? $this->dividend->toFloat() : $this->dividend->toFloat() / $this->divisor->toFloat();
    }

    /** @param  non-negative-int  $decimals how many decimals are kept, rounded half away from zero */
    public function rounded(int $decimals): BigDecimal
    {
        return $this->divisor === null
            ? $this->dividend->toScale($decimals, RoundingMode::HALF_UP)
            : $this->dividend->dividedBy($this->divisor, $decimals, RoundingMode::HALF_UP);
    }

    public function __toString(): string
    {
        return (string) $this->toDecimal();
    }

    private static function scaled(BigDecimal $figure, ?BigDecimal $factor): BigDecimal
    {
        return $factor === null ? $figure : $figure->multipliedBy($factor);
    }
}
