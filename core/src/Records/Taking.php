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
     * @param  int  $count  how many records count
     * @param  int  $met  how many of them meet the conditions of a share
     * @return Exact|null null where nothing can be taken of none
     */
    public static function of(Counted $counted, array $values, int $count, int $met): ?Exact
    {
        $take = $counted->take;
        if ($take === Take::Distinct) {
            return Exact::of(count(array_flip(array_map(Source::text(...), $values))));
        }
        $numbers = array_values(array_filter($values, fn (mixed $value): bool => $value instanceof Exact));

        return match (true) {
            $take === Take::Count, $take === Take::Open => Exact::of($count),
            $take === Take::Share => $count === 0 ? null : Exact::of($met)->times(100)->dividedBy(Exact::of($count)),
            $take === Take::Sum => $numbers === [] ? Exact::of(0) : Accumulation::Sum->combine($numbers),
            $numbers === [] => null,
            $take === Take::Mean => Accumulation::Mean->combine($numbers),
            $take === Take::Minimum => Accumulation::Minimum->combine($numbers),
            $take === Take::Maximum => Accumulation::Maximum->combine($numbers),
            $take === Take::Median => self::percentile($numbers, BigDecimal::of(50)),
            default => self::percentile($numbers, $counted->percentile ?? BigDecimal::of(50)),
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
        $place = $percent->multipliedBy(count($values) - 1)->withPointMovedLeft(2);
        $at = $place->toScale(0, RoundingMode::DOWN)->toInt();
        $rest = Exact::of($place->minus($at));
        $low = $values[$at] ?? $values[count($values) - 1];
        $high = $values[min($at + 1, count($values) - 1)];

        return $rest->isZero() ? $low : $low->plus($high->minus($low)->times($rest));
    }
}
