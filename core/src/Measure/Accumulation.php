<?php

declare(strict_types=1);

namespace Kybernet\Core\Measure;

use Brick\Math\BigDecimal;
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
     * The figure of the months given, passing over those without one; null when none has one. A mean keeps its
     * sum and count.
     *
     * @param  list<Period>  $months  earliest first
     */
    public function gather(Series $series, array $months): ?Exact
    {
        $figures = [];
        foreach ($months as $month) {
            $figure = $series->at($month);
            if ($figure !== null) {
                $figures[] = $figure;
            }
        }
        if ($figures === []) {
            return null;
        }

        return match ($this) {
            self::Latest => Exact::of($figures[count($figures) - 1]),
            self::Sum => Exact::of(self::total($figures)),
            self::Mean => Exact::mean(self::total($figures), count($figures)),
        };
    }

    /**
     * By how much limits that are stated for one period grow over several: a total grows with its periods, a
     * level does not.
     *
     * @param  positive-int  $periods
     * @return positive-int
     */
    public function limitFactor(int $periods): int
    {
        return $this === self::Sum ? $periods : 1;
    }

    /** @param  non-empty-list<BigDecimal>  $figures */
    private static function total(array $figures): BigDecimal
    {
        $total = array_shift($figures);
        foreach ($figures as $figure) {
            $total = $total->plus($figure);
        }

        return $total;
    }
}
