<?php

declare(strict_types=1);

namespace Kybernet\Core\Compare;

use InvalidArgumentException;
use Kybernet\Core\Measure\Exact;
use Kybernet\Core\Measure\Percentile;
use Kybernet\Core\Status\Polarity;

/**
 * One KPI's figures of one period over its units, beside each other.
 */
final readonly class Peers
{
    private const TENTH = 0.1;

    /**
     * @param  array<int|string, Exact>  $figures  by unit
     * @param  non-empty-list<Exact>  $inOrder  the figures, ascending
     * @param  non-empty-list<float>  $sorted  the same
     * @param  array<int|string, int>  $below  how many figures are smaller, by unit
     */
    private function __construct(private Polarity $polarity, private array $figures, private array $inOrder, private array $sorted, private array $below) {}

    /**
     * @param  array<int|string, Exact>  $figures  by unit, at least one
     * @param  Polarity  $polarity  a band's figures are handed in as their distances, with lower as the polarity
     *
     * @throws InvalidArgumentException when there is no figure
     */
    public static function of(array $figures, Polarity $polarity): self
    {
        if ($figures === []) {
            throw new InvalidArgumentException('There are no units to compare.');
        }
        // Floats are compared much faster; where they are equal, the figures decide.
        $floats = array_map(fn (Exact $figure): float => $figure->toFloat(), $figures);
        uksort($floats, function (int|string $one, int|string $other) use ($floats, $figures): int {
            $order = $floats[$one] <=> $floats[$other];

            return $order === 0 ? $figures[$one]->compareTo($figures[$other]) : $order;
        });
        [$inOrder, $below, $before] = [[], array_fill_keys(array_keys($figures), 0), null];
        foreach (array_keys($floats) as $place => $unit) {
            $below[$unit] = $before !== null && $figures[$unit]->compareTo($figures[$before]) === 0 ? $below[$before] : $place;
            $inOrder[] = $figures[$unit];
            $before = $unit;
        }

        return new self($polarity, $figures, $inOrder, array_values($floats), $below);
    }

    /**
     * By what units have: those without a figure are left out; inside or outside of a band the nearest to it is the best.
     *
     * @param  array<int|string, PeerFigure>  $units
     * @return self|null null where none has a figure
     */
    public static function among(array $units, Polarity $polarity): ?self
    {
        $ranked = array_filter(array_map(fn (PeerFigure $figure): ?Exact => $figure->ranked($polarity), $units));

        return $ranked === [] ? null : self::of($ranked, $polarity === Polarity::Band ? Polarity::Lower : $polarity);
    }

    /**
     * Rank by polarity, 1 for the best; ties share the better rank. Null for every unit of a KPI that is only tracked.
     *
     * @return array<int|string, int|null> by unit
     */
    public function ranks(): array
    {
        $isHigher = $this->polarity === Polarity::Higher;
        $upTo = array_count_values($this->below);
        $all = count($this->figures);

        return array_map(fn (int $smaller): ?int => match (true) {
            ! $this->isJudged() => null,
            $isHigher => $all - $smaller - $upTo[$smaller] + 1,
            default => $smaller + 1,
        }, $this->below);
    }

    /**
     * Where each unit lies among the figures, 0 to 100: the place at which the type 7 quantile gives its figure. Ties
     * share the lowest. 50 for a unit alone.
     *
     * @return array<int|string, float> by unit
     */
    public function percentiles(): array
    {
        $most = count($this->figures) - 1;

        return array_map(fn (int $smaller): float => $most === 0 ? 50.0 : 100 * $smaller / $most, $this->below);
    }

    /**
     * The figure below which the share of the units lies, interpolated linearly between the two nearest.
     *
     * Source: Hyndman and Fan (1996), "Sample Quantiles in Statistical Packages", type 7.
     *
     * @param  float  $share  0 to 1
     *
     * @throws InvalidArgumentException when the share is outside 0 to 1
     */
    public function quantile(float $share): float
    {
        if ($share < 0 || $share > 1) {
            throw new InvalidArgumentException('A quantile is for a share from 0 to 1.');
        }
        $place = (count($this->sorted) - 1) * $share;
        $below = (int) floor($place);
        $above = min($below + 1, count($this->sorted) - 1);

        return $this->sorted[$below] + ($place - $below) * ($this->sorted[$above] - $this->sorted[$below]);
    }

    /**
     * The same exactly, where something is worked out from it.
     *
     * @param  int<0, 100>  $percent
     */
    public function level(int $percent): Exact
    {
        return Percentile::of($this->inOrder, $percent);
    }

    /** @return array{float, float, float} lower quartile, median, upper quartile */
    public function quartiles(): array
    {
        return [$this->quantile(0.25), $this->quantile(0.5), $this->quantile(0.75)];
    }

    public function mean(): float
    {
        return array_sum($this->sorted) / count($this->sorted);
    }

    /**
     * How many standard deviations (of these units, n − 1) each lies above their mean; 0 where all are equal.
     *
     * @return array<int|string, float> by unit
     */
    public function zScores(): array
    {
        $mean = $this->mean();
        $squares = array_sum(array_map(fn (float $figure): float => ($figure - $mean) ** 2, $this->sorted));
        $deviation = count($this->sorted) < 2 ? 0.0 : sqrt($squares / (count($this->sorted) - 1));

        return array_map(fn (Exact $figure): float => $deviation === 0.0 ? 0.0 : ($figure->toFloat() - $mean) / $deviation, $this->figures);
    }

    /**
     * The units in the best and in the worst tenth: those at or beyond the type 7 quantile that cuts it off. None where
     * all are equal, and none for a KPI that is only tracked.
     *
     * @return array{best: list<int|string>, worst: list<int|string>}
     */
    public function tenths(): array
    {
        $low = $this->quantile(self::TENTH);
        $high = $this->quantile(1 - self::TENTH);
        if (! $this->isJudged() || $this->sorted[0] === $this->sorted[count($this->sorted) - 1]) {
            return ['best' => [], 'worst' => []];
        }
        [$atMost, $atLeast] = [[], []];
        foreach ($this->below as $unit => $smaller) {
            // Equal figures have as many below them as the first of them.
            if ($this->sorted[$smaller] <= $low) {
                $atMost[] = $unit;
            }
            if ($this->sorted[$smaller] >= $high) {
                $atLeast[] = $unit;
            }
        }

        return $this->polarity === Polarity::Higher
            ? ['best' => $atLeast, 'worst' => $atMost]
            : ['best' => $atMost, 'worst' => $atLeast];
    }

    private function isJudged(): bool
    {
        return $this->polarity === Polarity::Higher || $this->polarity === Polarity::Lower;
    }
}
