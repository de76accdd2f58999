<?php

declare(strict_types=1);

namespace Kybernet\Core\Calendar;

/**
 * The day by which the reading of a month is expected: one of the month that follows.
 */
final class DueDate
{
    /**
     * @param  Period  $month  in which the period ends
     * @param  int  $day  1 to 31; a month that is shorter is due on its last day
     * @return string as 2026-09-08
     */
    public static function after(Period $month, int $day): string
    {
        $next = $month->plus(1);
        $days = self::firstDay($next->plus(1)) - self::firstDay($next);

        return sprintf('%s-%02d', $next->key(), min($day, $days));
    }

    private static function firstDay(Period $month): int
    {
        return CivilDay::number($month->year(), $month->monthOfYear(), 1);
    }
}
