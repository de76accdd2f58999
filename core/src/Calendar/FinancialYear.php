<?php

declare(strict_types=1);

namespace Kybernet\Core\Calendar;

use InvalidArgumentException;

/**
 * The financial year that an organisation reports by: twelve months from the first of a set month.
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

    /** 0 for the first month of the financial year, 11 for the last. */
    private function monthIndex(Period $month): int
    {
        return ($month->monthOfYear() - $this->startMonth + 12) % 12;
    }
}
