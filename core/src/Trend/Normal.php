<?php

declare(strict_types=1);

namespace Kybernet\Core\Trend;

/**
 * The standard normal distribution: how likely something that varies by chance stays below a bound.
 */
final class Normal
{
    private const MOST_STEPS = 500;

    private const PRECISION = 1e-16;

    private const TINY = 1e-300;

    /**
     * The probability of a value below z.
     *
     * It is the regularised incomplete gamma function of ½ at z² ÷ 2, on either side of the mean: by its series near the
     * mean, by its continued fraction in the tails.
     */
    public static function below(float $z): float
    {
        $x = $z * $z / 2;
        if ($x < 1.5) {
            $inner = self::series($x) / 2;

            return $z < 0 ? 0.5 - $inner : 0.5 + $inner;
        }
        $outer = self::fraction($x) / 2;

        return $z < 0 ? $outer : 1 - $outer;
    }

    private static function series(float $x): float
    {
        if ($x === 0.0) {
            return 0.0;
        }
        $term = $sum = 2.0;
        for ($step = 1; $step < self::MOST_STEPS && $term > $sum * self::PRECISION; $step++) {
            $term *= $x / ($step + 0.5);
            $sum += $term;
        }

        return $sum * exp(-$x) * sqrt($x / M_PI);
    }

    private static function fraction(float $x): float
    {
        $b = $x + 0.5;
        $c = 1 / self::TINY;
        $d = 1 / $b;
        $value = $d;
        for ($step = 1; $step < self::MOST_STEPS; $step++) {
            $a = -$step * ($step - 0.5);
            $b += 2;
            $d = 1 / ($a * $d + $b);
            $c = $b + $a / $c;
            $value *= $c * $d;
            if (abs($c * $d - 1) < self::PRECISION) {
                break;
            }
        }

        return $value * exp(-$x) * sqrt($x / M_PI);
    }
}
