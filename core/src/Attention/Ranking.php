<?php

declare(strict_types=1);

namespace Kybernet\Core\Attention;

use Brick\Math\BigDecimal;

/**
 * The order of a list of exceptions.
 */
final class Ranking
{
    /**
     * The most points first. What has the same stays in the order in which it was handed in, the workbook's.
     *
     * @template K of array-key
     *
     * @param  array<K, BigDecimal>  $points  those of the reasons × the KPI's weight
     * @return array<K, BigDecimal>
     */
    public static function of(array $points): array
    {
        // PHP's sort keeps the order of equals.
        uasort($points, fn (BigDecimal $one, BigDecimal $other): int => $other->compareTo($one));

        return $points;
    }
}
