<?php

declare(strict_types=1);

namespace Kybernet\Core\Compare;

/**
 * How closely two KPIs go together, over units or over periods: −1 to 1.
 */
final class Correlation
{
    /** Fewer pairs always look related. */
    private const LEAST_PAIRS = 3;

    /**
     * Pearson's product-moment correlation of what both have; null with fewer than three pairs, or when one is constant.
     *
     * @param  array<int|string, float>  $one  by unit or period
     * @param  array<int|string, float>  $other
     */
    public static function pearson(array $one, array $other): ?float
    {
        [$x, $y] = self::pairs($one, $other);
        $n = count($x);
        if ($n < self::LEAST_PAIRS) {
            return null;
        }
        $meanX = array_sum($x) / $n;
        $meanY = array_sum($y) / $n;
        $xx = $yy = $xy = 0.0;
        foreach ($x as $index => $value) {
            $xx += ($value - $meanX) ** 2;
            $yy += ($y[$index] - $meanY) ** 2;
            $xy += ($value - $meanX) * ($y[$index] - $meanY);
        }

        return $xx <= 0.0 || $yy <= 0.0 ? null : max(-1.0, min(1.0, $xy / sqrt($xx * $yy)));
    }

    /**
     * Spearman's rank correlation: Pearson's of the ranks, ties sharing the mean of theirs.
     *
     * @param  array<int|string, float>  $one  by unit or period
     * @param  array<int|string, float>  $other
     */
    public static function spearman(array $one, array $other): ?float
    {
        [$x, $y] = self::pairs($one, $other);

        return self::pearson(self::ranks($x), self::ranks($y));
    }

    /**
     * @param  array<int|string, float>  $one
     * @param  array<int|string, float>  $other
     * @return array{list<float>, list<float>}
     */
    private static function pairs(array $one, array $other): array
    {
        $both = array_intersect_key($one, $other);

        return [array_values($both), array_map(fn (string|int $key): float => $other[$key], array_keys($both))];
    }

    /**
     * @param  list<float>  $values
     * @return array<int|string, float>
     */
    private static function ranks(array $values): array
    {
        asort($values);
        $groups = [];
        $before = null;
        foreach ($values as $index => $value) {
            $groups[count($groups) - (int) ($value === $before)][] = $index;
            $before = $value;
        }
        [$ranks, $below] = [[], 0];
        foreach ($groups as $alike) {
            foreach ($alike as $index) {
                $ranks["#{$index}"] = $below + (count($alike) + 1) / 2;
            }
            $below += count($alike);
        }

        return $ranks;
    }
}
