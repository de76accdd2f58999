<?php

declare(strict_types=1);

namespace Kybernet\Core\Calendar;

/**
 * Days of the Gregorian calendar as numbers, counted from Thursday 1 January 1970 = 0.
 *
 * Source: Howard Hinnant, "chrono-Compatible Low-Level Date Algorithms" (days_from_civil, civil_from_days).
 */
final class CivilDay
{
    public static function number(int $year, int $month, int $day): int
    {
        $shifted = $month <= 2 ? $year - 1 : $year;
        $era = self::floorDiv($shifted, 400);
        $yearOfEra = $shifted - $era * 400;
        $dayOfYear = intdiv(153 * ($month + ($month > 2 ? -3 : 9)) + 2, 5) + $day - 1;

        return $era * 146_097 + $yearOfEra * 365 + intdiv($yearOfEra, 4) - intdiv($yearOfEra, 100) + $dayOfYear - 719_468;
    }

    /** @return array{int, int} the year and the month, 1 to 12, that hold the day */
    public static function yearAndMonth(int $number): array
    {
        $shifted = $number + 719_468;
        $era = self::floorDiv($shifted, 146_097);
        $dayOfEra = $shifted - $era * 146_097;
        $yearOfEra = intdiv($dayOfEra - intdiv($dayOfEra, 1460) + intdiv($dayOfEra, 36_524) - intdiv($dayOfEra, 146_096), 365);
        $dayOfYear = $dayOfEra - (365 * $yearOfEra + intdiv($yearOfEra, 4) - intdiv($yearOfEra, 100));
        $shiftedMonth = intdiv(5 * $dayOfYear + 2, 153);
        $month = $shiftedMonth + ($shiftedMonth < 10 ? 3 : -9);

        return [$yearOfEra + $era * 400 + ($month <= 2 ? 1 : 0), $month];
    }

    /** Division that rounds down, so that numbers before the epoch count on without a jump. */
    public static function floorDiv(int $dividend, int $divisor): int
    {
        $quotient = intdiv($dividend, $divisor);

        return $dividend % $divisor < 0 ? $quotient - 1 : $quotient;
    }
}
