<?php

declare(strict_types=1);

namespace Kybernet\Core\Trend;

use Kybernet\Core\Calendar\Period;

/**
 * The individuals and moving range chart: between which limits a KPI moves by chance, and what is beyond chance.
 *
 * Source: NIST/SEMATECH e-Handbook of Statistical Methods, 6.3.2.2 (2.66 = 3 ÷ 1.128, 3.268 = D4 of two).
 */
final readonly class ControlChart
{
    /** How many periods before the latest the limits are taken from. */
    public const BASELINE_PERIODS = 24;

    /** In how many periods, the latest included, signals are looked for. */
    public const SIGNAL_PERIODS = 12;

    public const LEAST_READINGS = 8;

    private const LIMIT_FACTOR = 2.66;

    private const RANGE_FACTOR = 3.268;

    private const ONE_SIDE = 8;

    private const STEADY_RUN = 6;

    private const TOLERANCE = 1e-9;

    /** @param  list<Signal>  $signals  by period, and in one period in the order of the rules */
    private function __construct(
        public float $centre,
        public float $lower,
        public float $upper,
        public float $upperRange,
        /** mean moving range of the baseline: by how much single figures usually differ from the one before */
        public float $meanRange,
        public array $signals,
    ) {}

    /**
     * Null where the baseline has too few readings, or no two next to each other.
     *
     * @param  list<float|null>  $baseline  figures that the limits are taken from, earliest first; null leaves a gap
     * @param  list<array{Period, float|null}>  $latest  periods that signals are looked for in
     */
    public static function of(array $baseline, array $latest, int $leastReadings = self::LEAST_READINGS): ?self
    {
        $known = array_values(array_filter($baseline, fn (?float $figure): bool => $figure !== null));
        $ranges = [];
        foreach (array_keys($baseline) as $index) {
            $before = $index === 0 ? null : $baseline[$index - 1];
            if ($before !== null && $baseline[$index] !== null) {
                $ranges[] = abs($baseline[$index] - $before);
            }
        }
        if (count($known) < $leastReadings || $ranges === []) {
            return null;
        }
        $centre = array_sum($known) / count($known);
        $range = array_sum($ranges) / count($ranges);
        $reach = self::LIMIT_FACTOR * $range;

        return new self(
            $centre,
            $centre - $reach,
            $centre + $reach,
            self::RANGE_FACTOR * $range,
            $range,
            self::signals($latest, $centre, $reach),
        );
    }

    /** Whether a figure lies beyond the limits, on either side. */
    public function isOutside(float $figure): bool
    {
        return self::isBeyond($figure, $this->upper, 1) || self::isBeyond($figure, $this->lower, -1);
    }

    /**
     * @param  list<array{Period, float|null}>  $latest
     * @return list<Signal>
     */
    private static function signals(array $latest, float $centre, float $reach): array
    {
        $figures = array_column($latest, 1);
        $holds = fn (SignalRule $rule, int $at, int $side): bool => match ($rule) {
            SignalRule::OutsideLimits => self::isBeyond($figures[$at], $centre + $side * $reach, $side),
            SignalRule::OneSide => self::isOneSide($figures, $at, $centre, $side),
            SignalRule::SteadyRun => self::isSteadyRun($figures, $at, $side),
            SignalRule::TwoOfThree => self::isTwoOfThree($figures, $at, $centre + $side * $reach * 2 / 3, $side),
        };
        $signals = [];
        $held = [];
        foreach ($latest as $at => [$period]) {
            foreach (SignalRule::cases() as $rule) {
                foreach (Side::cases() as $side) {
                    $now = $holds($rule, $at, $side->sign());
                    // A run goes on holding after it was told; a point outside the limits is told each time.
                    if ($now && ($rule === SignalRule::OutsideLimits || ! ($held[$rule->value][$side->value] ?? false))) {
                        $signals[] = new Signal($period, $rule, $side);
                    }
                    $held[$rule->value][$side->value] = $now;
                }
            }
        }

        return $signals;
    }

    /** Floats are never compared to the last bit: beyond a limit means by more than their noise. */
    private static function isBeyond(?float $figure, float $limit, int $side): bool
    {
        return $figure !== null && ($figure - $limit) * $side > self::TOLERANCE * max(1.0, abs($limit));
    }

    /** @param  list<float|null>  $figures */
    private static function isOneSide(array $figures, int $at, float $centre, int $side): bool
    {
        if ($at + 1 < self::ONE_SIDE) {
            return false;
        }
        foreach (array_slice($figures, $at + 1 - self::ONE_SIDE, self::ONE_SIDE) as $figure) {
            if (! self::isBeyond($figure, $centre, $side)) {
                return false;
            }
        }

        return true;
    }

    /** @param  list<float|null>  $figures */
    private static function isSteadyRun(array $figures, int $at, int $side): bool
    {
        if ($at + 1 < self::STEADY_RUN) {
            return false;
        }
        $run = array_slice($figures, $at + 1 - self::STEADY_RUN, self::STEADY_RUN);
        for ($index = 1; $index < self::STEADY_RUN; $index++) {
            $before = $run[$index - 1];
            $now = $run[$index];
            if ($before === null || $now === null || ($now - $before) * $side <= 0) {
                return false;
            }
        }

        return true;
    }

    /** @param  list<float|null>  $figures */
    private static function isTwoOfThree(array $figures, int $at, float $limit, int $side): bool
    {
        if ($at < 2 || $figures[$at - 1] === null || $figures[$at - 2] === null) {
            return false;
        }

        return self::isBeyond($figures[$at], $limit, $side)
            && (self::isBeyond($figures[$at - 1], $limit, $side) || self::isBeyond($figures[$at - 2], $limit, $side));
    }
}
