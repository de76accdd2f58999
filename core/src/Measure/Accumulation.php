<?php

declare(strict_types=1);

namespace Kybernet\Core\Measure;

use Kybernet\Core\Calendar\Period;

/**
 * How a KPI's periods become the figure of a longer span.
 */
enum Accumulation: string
{
    case Sum = 'sum';
    case Mean = 'mean';
    case Latest = 'latest';
    case Maximum = 'maximum';
    case Minimum = 'minimum';
    /** Gather each operand of a formula by its own rule, then apply the formula: a ratio of sums. */
    case Recompute = 'recompute';

    /**
     * The figure of the periods given, passing over those without one; null when none has one. A mean keeps its sum
     * and count.
     *
     * @param  list<Period>  $periods  earliest first
     */
    public function gather(Series $series, array $periods): ?Exact
    {
        $known = $series->known($periods);
        if ($known === []) {
            return null;
        }

        return match ($this) {
            self::Latest => Exact::of($known[count($known) - 1]),
            self::Sum => Exact::total($known),
            self::Mean, self::Recompute => Exact::mean(Exact::total($known), count($known)),
            self::Maximum, self::Minimum => $this->combine(array_map(Exact::of(...), $known)),
        };
    }

    /**
     * Several figures as one. A ratio has no figures of its own to gather; where levels stand in for it, their mean is
     * taken.
     *
     * @param  non-empty-list<Exact>  $figures  earliest first
     */
    public function combine(array $figures): Exact
    {
        $first = array_shift($figures);

        return match ($this) {
            self::Latest => $figures === [] ? $first : $figures[count($figures) - 1],
            self::Sum => array_reduce($figures, fn (Exact $sum, Exact $figure): Exact => $sum->plus($figure), $first),
            self::Mean, self::Recompute => self::Sum->combine([$first, ...$figures])->dividedBy(Exact::of(count($figures) + 1)),
            self::Maximum => array_reduce($figures, fn (Exact $most, Exact $figure): Exact => $figure->compareTo($most) > 0 ? $figure : $most, $first),
            self::Minimum => array_reduce($figures, fn (Exact $least, Exact $figure): Exact => $figure->compareTo($least) < 0 ? $figure : $least, $first),
        };
    }

    /** How targets are gathered: as the figures are, but a ratio's target is a level. */
    public function ofTargets(): self
    {
        return $this === self::Recompute ? self::Mean : $this;
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
