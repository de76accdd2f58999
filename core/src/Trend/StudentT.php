<?php

declare(strict_types=1);

namespace Kybernet\Core\Trend;

use InvalidArgumentException;

/**
 * Student's t distribution.
 */
final class StudentT
{
    private const MOST_STEPS = 500;

    private const PRECISION = 1e-15;

    /** Keeps a fraction from dividing by zero. */
    private const TINY = 1e-300;

    /**
     * The probability of a t at least that far from 0 on either side, by chance alone.
     *
     * It is the regularised incomplete beta function at ν ÷ (ν + t²) with ν ÷ 2 and 1 ÷ 2.
     * Source: Abramowitz and Stegun, Handbook of Mathematical Functions, 26.5.27 and 26.7.1.
     *
     * @param  int  $freedom  ν, degrees of freedom, from 1
     *
     * @throws InvalidArgumentException when there are no degrees of freedom
     */
    public static function twoSided(float $t, int $freedom): float
    {
        if ($freedom < 1) {
            throw new InvalidArgumentException('A t needs at least one degree of freedom.');
        }
        $square = $t * $t;

        return min(1.0, self::incompleteBeta($freedom / ($freedom + $square), $square / ($freedom + $square), $freedom));
    }

    /**
     * I_x(ν/2, 1/2), with 1 − x handed in as it loses digits when subtracted.
     */
    /** The probability of a value below t. */
    public static function below(float $t, int $freedom): float
    {
        $beyond = self::twoSided($t, $freedom) / 2;

        return $t < 0 ? $beyond : 1 - $beyond;
    }

    /** The value that nine in ten lie below: found by halving, to the last bit. */
    public static function ninetieth(int $freedom): float
    {
        [$low, $high] = [1.0, 4.0];
        for ($step = 0; $step < 60; $step++) {
            $middle = ($low + $high) / 2;
            if (self::twoSided($middle, $freedom) > 0.2) {
                $low = $middle;
            } else {
                $high = $middle;
            }
        }

        return ($low + $high) / 2;
    }

    private static function incompleteBeta(float $x, float $rest, int $freedom): float
    {
        if ($x <= 0.0) {
            return 0.0;
        }
        if ($rest <= 0.0) {
            return 1.0;
        }
        $a = $freedom / 2;
        $b = 0.5;
        $front = $x ** $a * $rest ** $b / self::beta($freedom);
        // The fraction converges fast on its own side of the mean; on the other it is that of the mirrored function.
        if ($x < ($a + 1) / ($a + $b + 2)) {
            return $front * self::fraction($a, $b, $x) / $a;
        }

        return 1 - $front * self::fraction($b, $a, $rest) / $b;
    }

    /** B(ν/2, 1/2), from B(1/2, 1/2) = π and B(1, 1/2) = 2 by B(a + 1, b) = B(a, b) × a ÷ (a + b). */
    private static function beta(int $freedom): float
    {
        $a = $freedom % 2 === 1 ? 0.5 : 1.0;
        $beta = $freedom % 2 === 1 ? M_PI : 2.0;
        for (; $a < $freedom / 2; $a++) {
            $beta *= $a / ($a + 0.5);
        }

        return $beta;
    }

    /** The continued fraction 26.5.8 of Abramowitz and Stegun, evaluated by Lentz's method. */
    private static function fraction(float $a, float $b, float $x): float
    {
        $c = 1.0;
        $d = 1 / self::apart(1 - ($a + $b) * $x / ($a + 1));
        $result = $d;
        for ($m = 1; $m <= self::MOST_STEPS; $m++) {
            $even = $m * ($b - $m) * $x / (($a + 2 * $m - 1) * ($a + 2 * $m));
            $odd = -($a + $m) * ($a + $b + $m) * $x / (($a + 2 * $m) * ($a + 2 * $m + 1));
            $step = 1.0;
            foreach ([$even, $odd] as $term) {
                $d = 1 / self::apart(1 + $term * $d);
                $c = self::apart(1 + $term / $c);
                $step = $d * $c;
                $result *= $step;
            }
            if (abs($step - 1) < self::PRECISION) {
                break;
            }
        }

        return $result;
    }

    private static function apart(float $value): float
    {
        return abs($value) < self::TINY ? self::TINY : $value;
    }
}
