<?php

declare(strict_types=1);

namespace Kybernet\Core\Compare;

use Kybernet\Core\Measure\Accumulation;
use Kybernet\Core\Measure\Exact;

/**
 * What it would be worth if every unit that is worse had reached a level: how much the KPI's figure would have moved, in
 * its own measure. Below 0 it would have been less.
 */
final readonly class Gain
{
    private function __construct(
        /** how many units are worse than the level */
        public int $units,
        /** totals: the sum of their distances; otherwise the change of the plain mean over the units with a figure */
        public Exact $change,
        /**
         * the same kept up for the periods that are left of the year: totals the distances a period × those left, means
         * the change of the year's mean, levels the change itself; null for what does not follow from it
         */
        public ?Exact $toYearEnd,
    ) {}

    /**
     * A unit that is worse contributes the distance to its level, the others nothing.
     *
     * @param  array<int|string, PeerFigure>  $figures  by unit
     * @param  array<int|string, Exact>  $short  what would have to be added to each to reach its level, 0 where it is reached, by unit
     * @param  int  $left  periods of the financial year that have not ended
     * @param  int  $periods  of that year
     * @return self|null null where no unit has both a figure and a level
     */
    public static function of(array $figures, array $short, Accumulation $accumulation, int $left, int $periods): ?self
    {
        $with = array_filter($figures, fn (PeerFigure $figure): bool => $figure->actual !== null);
        if ($short === []) {
            return null;
        }
        // By the number of periods that were reported: a division for each of a few, not for each unit.
        $distances = [];
        $units = 0;
        foreach ($short as $unit => $distance) {
            if (! $distance->isZero()) {
                $units++;
                $distances[max(1, $with[$unit]->reported)][] = $distance;
            }
        }
        [$sum, $perPeriod] = [Exact::of(0), Exact::of(0)];
        foreach ($distances as $reported => $each) {
            $together = Accumulation::Sum->combine($each);
            $sum = $sum->plus($together);
            $perPeriod = $perPeriod->plus($together->dividedBy(Exact::of($reported)));
        }
        $mean = $sum->dividedBy(Exact::of(count($with)));

        return new self($units, $accumulation === Accumulation::Sum ? $sum : $mean, match (true) {
            $left <= 0 || $periods <= 0 => null,
            $accumulation === Accumulation::Sum => $perPeriod->times($left),
            $accumulation === Accumulation::Mean => $mean->times($left)->dividedBy(Exact::of($periods)),
            $accumulation === Accumulation::Latest => $mean,
            default => null,
        });
    }
}
