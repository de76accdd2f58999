<?php

declare(strict_types=1);

namespace Kybernet\Core\Records;

use DateTimeImmutable;
use DateTimeZone;
use Exception;
use InvalidArgumentException;
use Kybernet\Core\Calendar\CivilDay;

/**
 * The clock by which an organisation's days begin and end (IANA time zone database).
 */
final class Zone
{
    private readonly DateTimeZone $zone;

    /** @var array<int, int> first seconds, by day */
    private array $begins = [];

    /** @throws InvalidArgumentException when there is no such zone */
    public function __construct(public readonly string $name)
    {
        try {
            $this->zone = new DateTimeZone($name);
        } catch (Exception) {
            throw new InvalidArgumentException("There is no time zone '{$name}'.");
        }
    }

    /** The local date of an instant. */
    public function dayOf(Instant $instant): Day
    {
        // No clock is further from UTC than a day, and days before the one that has begun have ended.
        $day = CivilDay::floorDiv($instant->seconds, 86_400) + 1;
        while ($this->begins($day) > $instant->seconds) {
            $day--;
        }

        return new Day($day);
    }

    /** The first local instant of a day: where clocks go forward at midnight it is not 00:00. */
    public function begin(Day $day): Instant
    {
        return new Instant($this->begins($day->number));
    }

    /** The instant at which local clocks show what this one shows in UTC; of two the first. */
    public function local(Instant $clock): Instant
    {
        return new Instant((new DateTimeImmutable(rtrim((new Instant($clock->seconds))->key(), 'Z'), $this->zone))->getTimestamp(), $clock->fraction);
    }

    private function begins(int $day): int
    {
        return $this->begins[$day] ??= (new DateTimeImmutable((new Day($day))->key().' 00:00:00', $this->zone))->getTimestamp();
    }
}
