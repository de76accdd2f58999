<?php

declare(strict_types=1);

namespace Kybernet\Core\Measure;

use Kybernet\Core\Calendar\Period;

/**
 * How a KPI's months become the figure of a longer span.
 */
enum Accumulation: string
{
    case Sum = 'sum';
    case Mean = 'mean';
    case Latest = 'latest';

    /**
     * The figure of the months given, passing over those without one; null when none has one. A mean keeps its sum
     * and count.
     *
     * @param  list<Period>  $months  earliest first
     */
    public function gather(Series $series, array $months): ?Exact
    {
        $known = array_values(array_filter($months, $series->has(...)));
        if ($known === []) {
            return null;
        }

        return match ($this) {
            self::Latest => Exact::of($series->total([$known[count($known) - 1]])),
            self::Sum => Exact::of($series->total($known)),
            self::Mean => Exact::mean($series->total($known), count($known)),
        };
    }

    /**
     * By how much limits that are stated for one period grow over several: a total grows with its periods, a level
     * does not.
     *
     * @param  positive-int  $periods
     * @return positive-int
     */
    public function limitFactor(int $periods): int
    {
        return $this === self::Sum ? $periods : 1;
    }
}
