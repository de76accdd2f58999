<?php

declare(strict_types=1);

namespace Kybernet\Core\Measure;

use Brick\Math\BigDecimal;
use Brick\Math\RoundingMode;

/**
 * Type 7 of Hyndman and Fan, "Sample Quantiles in Statistical Packages" (The American Statistician 50, 1996): the value at
 * place (n − 1) · p ÷ 100 of those in order, counted from 0, on the line between its neighbours.
 */
final class Percentile
{
    /**
     * @param  non-empty-list<Exact>  $sorted  ascending
     * @param  BigDecimal|int  $percent  0 to 100
     */
    public static function of(array $sorted, BigDecimal|int $percent): Exact
    {
        $percent = BigDecimal::of($percent);

        return self::between(array_slice($sorted, self::place(count($sorted), $percent), 2), count($sorted), $percent);
    }

    /**
     * The place of the value at or below a percentile, from 0.
     *
     * @param  positive-int  $count
     */
    public static function place(int $count, BigDecimal $percent): int
    {
        return self::exactPlace($count, $percent)->toScale(0, RoundingMode::DOWN)->toInt();
    }

    /**
     * A percentile by the value at its place and, where there is one, the next.
     *
     * @param  list<Exact>  $neighbours
     * @param  positive-int  $count  of all values
     */
    public static function between(array $neighbours, int $count, BigDecimal $percent): Exact
    {
        $low = $neighbours[0] ?? throw new \LogicException('A percentile is of some values.');
        $rest = Exact::of(self::exactPlace($count, $percent)->minus(self::place($count, $percent)));

        return $rest->isZero() || ! isset($neighbours[1]) ? $low : $low->plus($neighbours[1]->minus($low)->times($rest));
    }

    private static function exactPlace(int $count, BigDecimal $percent): BigDecimal
    {
        return $percent->multipliedBy($count - 1)->withPointMovedLeft(2);
    }
}
