<?php

declare(strict_types=1);

namespace Kybernet\Core\Records;

use Kybernet\Core\Measure\Accumulation;
use Kybernet\Core\Measure\Exact;
use Kybernet\Core\Measure\Percentile;

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
            Take::Median, Take::Percentile => self::percentile($numbers, $counted),
        };
    }

    /** @param  non-empty-list<Exact>  $values  in any order */
    private static function percentile(array $values, Counted $counted): Exact
    {
        usort($values, fn (Exact $one, Exact $other): int => $one->compareTo($other));

        return Percentile::of($values, $counted->percentile());
    }
}
