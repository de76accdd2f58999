<?php

declare(strict_types=1);

namespace Kybernet\Core\Trend;

use InvalidArgumentException;
use Kybernet\Core\Measure\Accumulation;
use Kybernet\Core\Measure\Exact;

/**
 * The mean of a period and those just before it.
 */
final class MovingAverage
{
    /**
     * @param  list<Exact|null>  $figures  earliest first; null leaves a gap
     * @param  int  $periods  how many are averaged, itself included, from 1
     * @return list<Exact|null> for each period; null where one of those averaged has no figure
     *
     * @throws InvalidArgumentException when there is nothing to average
     */
    public static function of(array $figures, int $periods): array
    {
        if ($periods < 1) {
            throw new InvalidArgumentException('At least one period is averaged.');
        }
        $averages = [];
        foreach (array_keys($figures) as $index) {
            $window = $index + 1 < $periods ? [] : array_slice($figures, $index + 1 - $periods, $periods);
            $known = Exact::known($window);
            $averages[] = $known === [] || count($known) < $periods ? null : Accumulation::Mean->combine($known);
        }

        return $averages;
    }
}
