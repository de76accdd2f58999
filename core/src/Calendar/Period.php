<?php

declare(strict_types=1);

namespace Kybernet\Core\Calendar;

use InvalidArgumentException;

/**
 * One period of a KPI: a month `2026-08`, an ISO 8601 week `2026-W14`, a quarter `FY2026-Q2` of the financial year
 * that starts in 2026, or that year, `FY2026`.
 *
 * Periods of one frequency are counted on without a gap, so that stepping is addition. Only a
 * {@see FinancialYear} knows in which months a quarter or a year lies.
 */
final readonly class Period
{
    private const FORMS = [
        'month' => '/\A(\d{4})-(\d{2})\z/',
        'week' => '/\A(\d{4})-W(\d{2})\z/',
        'quarter' => '/\AFY(\d{4})-Q(\d)\z/',
        'year' => '/\AFY(\d{4})()\z/',
    ];

    private const MONTHS = ['January', 'February', 'March', 'April', 'May', 'June', 'July', 'August', 'September', 'October', 'November', 'December'];

    /** @param  int  $ordinal  months and quarters from year 0, weeks from that of 1 January 1970, years as they are */
    private function __construct(public Frequency $frequency, public int $ordinal, private string $key) {}

    /** @throws InvalidArgumentException when the month is not 1 to 12 or the year not 1 to 9999 */
    public static function month(int $year, int $month): self
    {
        if ($month < 1 || $month > 12 || $year < 1 || $year > 9999) {
            throw new InvalidArgumentException("There is no month {$month} of the year {$year}.");
        }

        return self::ofOrdinal(Frequency::Month, $year * 12 + $month - 1);
    }

    /**
     * A week belongs to the year that holds its Thursday (ISO 8601), so that a year has 52 or 53.
     *
     * @throws InvalidArgumentException when the year has no such week
     */
    public static function week(int $year, int $week): self
    {
        if ($week >= 1 && $week <= 53 && $year >= 1 && $year <= 9999) {
            // Weeks are counted by their Thursdays, and day 0 was one.
            $first = CivilDay::floorDiv(CivilDay::number($year, 1, 1) + 6, 7);
            $period = self::ofOrdinal(Frequency::Week, $first + $week - 1);
            if ($week <= 52 || self::isoWeek($period->ordinal) === [$year, 53]) {
                return $period;
            }
        }
        throw new InvalidArgumentException("There is no week {$week} of the year {$year}.");
    }

    /**
     * @param  int  $year  the calendar year in which the financial year starts
     *
     * @throws InvalidArgumentException when the quarter is not 1 to 4 or the year not 1 to 9999
     */
    public static function quarter(int $year, int $quarter): self
    {
        if ($quarter < 1 || $quarter > 4 || $year < 1 || $year > 9999) {
            throw new InvalidArgumentException("There is no quarter {$quarter} of the year {$year}.");
        }

        return self::ofOrdinal(Frequency::Quarter, $year * 4 + $quarter - 1);
    }

    /**
     * @param  int  $year  the calendar year in which the financial year starts
     *
     * @throws InvalidArgumentException when the year is not 1 to 9999
     */
    public static function financialYear(int $year): self
    {
        if ($year < 1 || $year > 9999) {
            throw new InvalidArgumentException("There is no year {$year}.");
        }

        return self::ofOrdinal(Frequency::Year, $year);
    }

    /** @throws InvalidArgumentException when the text is not a period of the frequency */
    public static function parse(string $text, Frequency $frequency = Frequency::Month): self
    {
        if (preg_match(self::FORMS[$frequency->value], $text, $match) !== 1) {
            throw new InvalidArgumentException("'{$text}' is not a {$frequency->value} such as {$frequency->example()}.");
        }
        $year = (int) $match[1];
        $part = (int) $match[2];

        return match ($frequency) {
            Frequency::Month => self::month($year, $part),
            Frequency::Week => self::week($year, $part),
            Frequency::Quarter => self::quarter($year, $part),
            Frequency::Year => self::financialYear($year),
        };
    }

    /** The period of the frequency with that place in the count. */
    public static function ofOrdinal(Frequency $frequency, int $ordinal): self
    {
        /** @var array<string, array<int, self>> $made  a few hundred of them are asked for again and again */
        static $made = [];

        return $made[$frequency->value][$ordinal] ??= new self($frequency, $ordinal, match ($frequency) {
            Frequency::Month => sprintf('%04d-%02d', CivilDay::floorDiv($ordinal, 12), self::place($ordinal, 12) + 1),
            Frequency::Week => vsprintf('%04d-W%02d', self::isoWeek($ordinal)),
            Frequency::Quarter => sprintf('FY%04d-Q%d', CivilDay::floorDiv($ordinal, 4), self::place($ordinal, 4) + 1),
            Frequency::Year => sprintf('FY%04d', $ordinal),
        });
    }

    /** Of a month: its calendar year. */
    public function year(): int
    {
        return intdiv($this->ordinal, 12);
    }

    /** Of a month: 1 to 12. */
    public function monthOfYear(): int
    {
        return $this->ordinal % 12 + 1;
    }

    /** The period as text: the form in which series are keyed. */
    public function key(): string
    {
        return $this->key;
    }

    /** `August 2026`; any other period as it is written. */
    public function words(): string
    {
        return $this->frequency === Frequency::Month ? self::MONTHS[$this->monthOfYear() - 1].' '.$this->year() : $this->key;
    }

    /** @param  int  $periods how many periods later; earlier when negative */
    public function plus(int $periods): self
    {
        return self::ofOrdinal($this->frequency, $this->ordinal + $periods);
    }

    public function previous(): self
    {
        return $this->plus(-1);
    }

    /** The same period a year earlier: of a week the one of the same number, and a week 53 has none. */
    public function yearEarlier(): ?self
    {
        if ($this->frequency === Frequency::Week) {
            [$year, $week] = self::isoWeek($this->ordinal);

            return $week === 53 || $year === 1 ? null : self::week($year - 1, $week);
        }

        return $this->plus(match ($this->frequency) {
            Frequency::Month => -12,
            Frequency::Quarter => -4,
            Frequency::Year => -1,
        });
    }

    /** Below 0 when this period is earlier than that one, 0 when it is the same, above 0 when it is later. */
    public function compareTo(self $that): int
    {
        return $this->ordinal <=> $that->ordinal;
    }

    /**
     * The periods from this one to the other of the same frequency, both included; none when the other is earlier.
     *
     * @return list<self>
     */
    public function to(self $last): array
    {
        $periods = [];
        for ($ordinal = $this->ordinal; $ordinal <= $last->ordinal; $ordinal++) {
            $periods[] = self::ofOrdinal($this->frequency, $ordinal);
        }

        return $periods;
    }

    /** @return array{int, int} the ISO year and the number of the week */
    private static function isoWeek(int $ordinal): array
    {
        $thursday = $ordinal * 7;
        [$year] = CivilDay::yearAndMonth($thursday);

        return [$year, intdiv($thursday - CivilDay::number($year, 1, 1), 7) + 1];
    }

    private static function place(int $ordinal, int $each): int
    {
        return $ordinal - CivilDay::floorDiv($ordinal, $each) * $each;
    }
}
