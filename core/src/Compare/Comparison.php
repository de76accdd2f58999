<?php

declare(strict_types=1);

namespace Kybernet\Core\Compare;

use Kybernet\Core\Measure\Accumulation;
use Kybernet\Core\Measure\Exact;
use Kybernet\Core\Status\Polarity;

/**
 * One KPI of many like units on a span: how they rank and are spread, who stands out, and what it would be worth to bring
 * the worse ones along. What lies in or out of a band is ranked by its distance from it.
 */
final readonly class Comparison
{
    /**
     * @param  array<int|string, PeerFigure>  $units  in register order
     * @param  array<int|string, int|null>  $ranks  by unit with a figure, 1 for the best; null for what is only tracked
     * @param  array<int|string, float>  $percentiles  by unit with a figure
     * @param  list<int|string>  $bestTenth
     * @param  list<int|string>  $worstTenth
     * @param  array<string, Gain|null>  $gains  by the value of {@see Level}
     */
    private function __construct(
        public array $units,
        public Polarity $polarity,
        public array $ranks,
        public array $percentiles,
        public array $bestTenth,
        public array $worstTenth,
        /** none where no unit has a figure */
        public ?Peers $peers,
        /** how many units have a target (or a band) to meet */
        public int $aiming,
        public int $meeting,
        public array $gains,
    ) {}

    /**
     * @param  array<int|string, PeerFigure>  $units  in register order
     * @param  int  $left  periods of the financial year that have not ended
     * @param  int  $periods  of that year
     */
    public static function of(array $units, Polarity $polarity, Accumulation $accumulation, int $left, int $periods): self
    {
        $peers = Peers::among($units, $polarity);
        $toTarget = array_filter(array_map(fn (PeerFigure $figure): ?Exact => $figure->short($polarity), $units));
        if ($peers === null) {
            return new self($units, $polarity, [], [], [], [], null, 0, 0, array_fill_keys(array_column(Level::cases(), 'value'), null));
        }
        ['best' => $best, 'worst' => $worst] = $peers->tenths();
        $gains = [];
        foreach (Level::cases() as $level) {
            $reached = $level->among($peers, $polarity);
            $gains[$level->value] = Gain::of($units, match (true) {
                $polarity === Polarity::None => [],
                $reached === null => $toTarget,
                // Of a band's units each has its own idea of good, so a level of them all says nothing.
                default => $polarity === Polarity::Band ? [] : array_filter(array_map(fn (PeerFigure $figure): ?Exact => $figure->shortOf($reached, $polarity), $units)),
            }, $accumulation, $left, $periods);
        }

        return new self($units, $polarity, $peers->ranks(), $peers->percentiles(), $best, $worst, $peers, count($toTarget), count(array_filter($toTarget, fn (Exact $distance): bool => $distance->isZero())), $gains);
    }

    /**
     * The best, or the last, in their order; fewer where fewer have a figure, none for what is only tracked. Of those
     * that share a rank the one that stands first in the register comes first.
     *
     * @param  positive-int  $most
     * @return list<int|string>
     */
    public function first(int $most, bool $isLast = false): array
    {
        $ranks = array_filter($this->ranks, is_int(...));
        $isLast ? arsort($ranks) : asort($ranks);

        return array_slice(array_keys($ranks), 0, $most);
    }

    /** Whether a unit is the last, and not because all are equal. */
    public function isLast(int|string $unit): bool
    {
        $ranks = array_filter($this->ranks, is_int(...));

        return isset($ranks[$unit]) && $ranks[$unit] > 1 && $ranks[$unit] === max($ranks);
    }

    /**
     * By how much each has moved from what it was; those that got worse most first, and those that got better most last.
     * In a band, by how its distance from it has.
     *
     * @param  array<int|string, PeerFigure>  $before  by unit
     * @return array<int|string, Variance> by unit that has both figures
     */
    public function moved(array $before): array
    {
        $moved = $adverse = [];
        foreach ($this->units as $unit => $figure) {
            $then = $before[$unit] ?? null;
            if ($figure->actual === null || $then?->actual === null) {
                continue;
            }
            $moved[$unit] = $this->polarity === Polarity::Band
                ? Variance::withinBand($figure->actual, $then->actual, $figure->band === null ? null : [$figure->band, $figure->actual, $then->actual])
                : Variance::between($figure->actual, $then->actual, $this->polarity);
            $adverse[$unit] = match (true) {
                $this->polarity !== Polarity::Band => $this->polarity->adverse($moved[$unit]->difference),
                $figure->band === null => Exact::of(0),
                default => $figure->band->distance($figure->actual)->minus($figure->band->distance($then->actual)),
            };
        }
        uksort($moved, fn (int|string $one, int|string $other): int => $adverse[$other]->compareTo($adverse[$one]));

        return $moved;
    }
}
