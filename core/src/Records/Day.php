<?php

declare(strict_types=1);

namespace Kybernet\Core\Records;

use InvalidArgumentException;
use Kybernet\Core\Calendar\CivilDay;

/**
 * A date of the Gregorian calendar.
 */
final readonly class Day
{
    /** @param  int  $number  days from 1 January 1970 */
    public function __construct(public int $number) {}

    /** @throws InvalidArgumentException when there is no such day */
    public static function parse(string $text): self
    {
        if (preg_match('/\A(\d{4})-(\d{2})-(\d{2})\z/', $text, $match) !== 1 || ! checkdate((int) $match[2], (int) $match[3], (int) $match[1])) {
            throw new InvalidArgumentException("'{$text}' is not a date such as 2026-08-31.");
        }

        return new self(CivilDay::number((int) $match[1], (int) $match[2], (int) $match[3]));
    }

    /** `2026-08-31` */
    public function key(): string
    {
        [$year, $month] = CivilDay::yearAndMonth($this->number);

        return sprintf('%04d-%02d-%02d', $year, $month, $this->number - CivilDay::number($year, $month, 1) + 1);
    }
}
