<?php

declare(strict_types=1);

namespace Kybernet\Core\Records;

/**
 * From when to when a set is complete: inside, no record means none; outside, it means not known. Both ends are needed
 * to say anything.
 */
final readonly class Coverage
{
    public function __construct(public ?Day $from = null, public ?Day $to = null) {}

    public function isKnown(): bool
    {
        return $this->from !== null && $this->to !== null;
    }

    /** Whether the days from the first to the last lie wholly inside. */
    public function holds(Day $first, Day $last): bool
    {
        return $this->from !== null && $this->to !== null && $first->number >= $this->from->number && $last->number <= $this->to->number;
    }

    /** Whether the day lies before it. */
    public function isAfter(Day $day): bool
    {
        return $this->isKnown() && $day->number < ($this->from->number ?? 0);
    }
}
