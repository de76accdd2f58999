<?php

declare(strict_types=1);

namespace Kybernet\Core\Calendar;

use InvalidArgumentException;

/**
 * One calendar month, written `2026-08`. Months are counted from year 0, so that stepping is addition.
 */
final readonly class Period
{
    private function __construct(private int $ordinal, private string $key) {}

    /** @throws InvalidArgumentException when the month is not 1 to 12 or the year not 1 to 9999 */
    public static function month(int $year, int $month): self
    {
        if ($month < 1 || $month > 12 || $year < 1 || $year > 9999) {
            throw new InvalidArgumentException("There is no month {$month} of the year {$year}.");
        }

        return self::ofOrdinal($year * 12 + $month - 1);
    }

    /** @throws InvalidArgumentException when the text is not a month such as `2026-08` */
    public static function parse(string $text): self
    {
        if (preg_match('/\A(\d{4})-(\d{2})\z/', $text, $match) !== 1) {
            throw new InvalidArgumentException("'{$text}' is not a month such as 2026-08.");
        }

        return self::month((int) $match[1], (int) $match[2]);
    }

    public function year(): int
    {
        return intdiv($this->ordinal, 12);
    }

    public function monthOfYear(): int
    {
        return $this->ordinal % 12 + 1;
    }

    /** The month as text, `2026-08`: the form in which series are keyed. */
    public function key(): string
    {
        return $this->key;
    }

    /** @param  int  $months how many months later; earlier when negative */
    public function plus(int $months): self
    {
        return self::ofOrdinal($this->ordinal + $months);
    }

    public function previous(): self
    {
        return $this->plus(-1);
    }

    /** The same month a year earlier. */
    public function yearEarlier(): self
    {
        return $this->plus(-12);
    }

    /** Below 0 when this month is earlier than that one, 0 when it is the same, above 0 when it is later. */
    public function compareTo(self $that): int
    {
        return $this->ordinal <=> $that->ordinal;
    }

    /**
     * The months from this one to the other, both included; none when the other is earlier.
     *
     * @return list<self>
     */
    public function to(self $last): array
    {
        $months = [];
        for ($ordinal = $this->ordinal; $ordinal <= $last->ordinal; $ordinal++) {
            $months[] = self::ofOrdinal($ordinal);
        }

        return $months;
    }

    private static function ofOrdinal(int $ordinal): self
    {
        return new self($ordinal, sprintf('%04d-%02d', intdiv($ordinal, 12), $ordinal % 12 + 1));
    }
}
