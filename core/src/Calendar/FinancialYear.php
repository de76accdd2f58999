<?php

declare(strict_types=1);

namespace Kybernet\Core\Calendar;

use InvalidArgumentException;

/**
 * The financial year that an organisation reports by: twelve months from the first of a set month. It says in which
 * months the periods of every frequency begin and end.
 */
final readonly class FinancialYear
{
    /**
     * @param  int  $startMonth  the month the year starts in, 1 to 12
     *
     * @throws InvalidArgumentException when there is no such month
     */
    public function __construct(public int $startMonth)
    {
        if ($startMonth < 1 || $startMonth > 12) {
            throw new InvalidArgumentException("A financial year starts in a month from 1 to 12, not in {$startMonth}.");
        }
    }

    /** The first month of the financial year that holds the month. */
    public function start(Period $month): Period
    {
        return $month->plus(-$this->monthIndex($month));
    }

    /** The first month of the financial quarter that holds the month. */
    public function quarterStart(Period $month): Period
    {
        return $month->plus(-($this->monthIndex($month) % 3));
    }

    /**
     * The twelve months of the financial year that holds the month.
     *
     * @return list<Period>
     */
    public function months(Period $month): array
    {
        $start = $this->start($month);

        return $start->to($start->plus(11));
    }

    /** `2026` when the year starts in January, otherwise `2026/27`. */
    public function label(Period $month): string
    {
        $year = $this->start($month)->year();

        return $this->startMonth === 1 ? (string) $year : sprintf('%d/%02d', $year, ($year + 1) % 100);
    }

    /** The financial year in which a period of any frequency ends. */
    public function of(Period $period): Period
    {
        return Period::financialYear(max(1, $this->start($this->endMonth($period))->year()));
    }

    /** The month in which a period ends; a week counts in the month that holds its Thursday. */
    public function endMonth(Period $period): Period
    {
        return match ($period->frequency) {
            Frequency::Month => $period,
            Frequency::Week => self::thursdayMonth($period),
            Frequency::Quarter => $this->monthAt($period->ordinal * 3 + 2),
            Frequency::Year => $this->monthAt($period->ordinal * 12 + 11),
        };
    }

    /** The month in which a period begins; a week counts in the month that holds its Thursday. */
    public function beginMonth(Period $period): Period
    {
        return match ($period->frequency) {
            Frequency::Month => $period,
            Frequency::Week => self::thursdayMonth($period),
            Frequency::Quarter => $this->monthAt($period->ordinal * 3),
            Frequency::Year => $this->monthAt($period->ordinal * 12),
        };
    }

    /** The latest period of the frequency that has ended by the end of the month. */
    public function latestEnded(Frequency $frequency, Period $month): Period
    {
        // Months counted from the start of the financial year 0.
        $index = $month->ordinal - ($this->startMonth - 1);

        return match ($frequency) {
            Frequency::Month => $month,
            Frequency::Week => Period::ofOrdinal(Frequency::Week, CivilDay::floorDiv(self::lastDay($month), 7)),
            Frequency::Quarter => Period::ofOrdinal(Frequency::Quarter, CivilDay::floorDiv($index + 1, 3) - 1),
            Frequency::Year => Period::ofOrdinal(Frequency::Year, CivilDay::floorDiv($index + 1, 12) - 1),
        };
    }

    /**
     * The periods of the frequency that end in the months from the first to the last.
     *
     * @return list<Period>
     */
    public function endingIn(Frequency $frequency, Period $first, Period $last): array
    {
        return $this->latestEnded($frequency, $first->previous())->plus(1)->to($this->latestEnded($frequency, $last));
    }

    /** 0 for the first month of the financial year, 11 for the last. */
    private function monthIndex(Period $month): int
    {
        return ($month->monthOfYear() - $this->startMonth + 12) % 12;
    }

    private function monthAt(int $index): Period
    {
        return Period::ofOrdinal(Frequency::Month, $index + $this->startMonth - 1);
    }

    /** @return array{int, int} the first and the last day of a period, as {@see CivilDay} numbers them */
    public function days(Period $period): array
    {
        return $period->frequency === Frequency::Week
            ? [$period->ordinal * 7 - 3, $period->ordinal * 7 + 3]
            : [self::lastDay($this->beginMonth($period)->previous()) + 1, self::lastDay($this->endMonth($period))];
    }

    /** The period of the frequency that holds a day. */
    public function holding(Frequency $frequency, int $day): Period
    {
        $month = Period::month(...CivilDay::yearAndMonth($day));

        return match ($frequency) {
            Frequency::Month => $month,
            Frequency::Week => Period::ofOrdinal(Frequency::Week, CivilDay::floorDiv($day + 3, 7)),
            Frequency::Quarter => $this->latestEnded(Frequency::Quarter, $this->quarterStart($month)->plus(2)),
            Frequency::Year => $this->latestEnded(Frequency::Year, $this->start($month)->plus(11)),
        };
    }

    private static function thursdayMonth(Period $week): Period
    {
        return Period::month(...CivilDay::yearAndMonth($week->ordinal * 7));
    }

    private static function lastDay(Period $month): int
    {
        $next = $month->plus(1);

        return CivilDay::number($next->year(), $next->monthOfYear(), 1) - 1;
    }
}
