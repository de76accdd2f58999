<?php

declare(strict_types=1);

namespace Kybernet\Core\Status;

use Kybernet\Core\Calendar\Frequency;
use Kybernet\Core\Trend\ControlChart;

/**
 * How far before a period the figures lie that judge it. Who reads figures asks here how much history a rule may need.
 */
final class Reach
{
    private const WEEKS_A_MONTH = 4;

    /**
     * Whatever the rule: control limits take 24 periods before the 12 that signals are looked for in, and the latest year
     * of a yearly KPI may have begun 22 months before the month that carries it forward, and is held against the year
     * before.
     */
    public static function always(): int
    {
        return ControlChart::BASELINE_PERIODS + ControlChart::SIGNAL_PERIODS;
    }

    /**
     * @param  int|null  $periods  that the rule takes the mean of; null where it takes none
     * @return int months
     */
    public static function of(Frequency $frequency, ?int $periods): int
    {
        $months = match ($frequency) {
            Frequency::Week => intdiv(($periods ?? 0) + self::WEEKS_A_MONTH - 1, self::WEEKS_A_MONTH),
            Frequency::Month => $periods ?? 0,
            Frequency::Quarter => 3 * ($periods ?? 0),
            Frequency::Year => 12 * ($periods ?? 0),
        };

        return self::always() + $months;
    }
}
