<?php

declare(strict_types=1);

namespace Kybernet\Core\Records;

use Brick\Math\BigDecimal;
use Brick\Math\RoundingMode;
use Kybernet\Core\Measure\Accumulation;
use Kybernet\Core\Measure\Exact;

/**
 * What is taken of records as one figure: exact, rounded only when it is given out.
 */
final class Taking
{
    /**
     * @param  list<Exact|Day|Instant|string|bool>  $values  one a record, where values are taken
     * @return Exact|null under `mean` their sum, otherwise as named; null where nothing is taken, or of none
     */
    public static function of(Counted $counted, array $values): ?Exact
    {
        if ($counted->take === Take::Distinct) {
            return Exact::of(count(array_flip(array_map(Source::text(...), $values))));
        }
        $numbers = array_values(array_filter($values, fn (mixed $value): bool => $value instanceof Exact));

        return $numbers === [] ? null : match ($counted->take) {
            Take::Count, Take::Open, Take::Share => null,
            Take::Sum, Take::Mean => Accumulation::Sum->combine($numbers),
            Take::Minimum => Accumulation::Minimum->combine($numbers),
            Take::Maximum => Accumulation::Maximum->combine($numbers),
            Take::Median, Take::Percentile => self::percentile($numbers, $counted->percentile()),
        };
    }

    /**
     * Type 7 of Hyndman and Fan, "Sample Quantiles in Statistical Packages" (The American Statistician 50, 1996): the
     * value at place (n − 1) · p ÷ 100 of those in order, counted from 0, on the line between its neighbours.
     *
     * @param  non-empty-list<Exact>  $values  in any order
     * @param  BigDecimal  $percent  0 to 100
     */
    public static function percentile(array $values, BigDecimal $percent): Exact
    {
        usort($values, fn (Exact $one, Exact $other): int => $one->compareTo($other));

        return self::between(array_slice($values, self::place(count($values), $percent), 2), count($values), $percent);
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
