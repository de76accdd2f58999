<?php

declare(strict_types=1);

namespace Kybernet\Core\Status;

use Kybernet\Core\Measure\Exact;
use Kybernet\Core\Measure\Measurement;
use Kybernet\Core\Trend\YearPosition;

/**
 * How much of the year target is asked for by the chosen month.
 */
enum Pace: string
{
    /** All of it, from the first month on. */
    case Whole = 'whole';
    /** An even share for each period reported. */
    case Even = 'even';
    /** As much as the same periods had of the whole of last year; an even share where last year does not say. */
    case LastYear = 'last-year';

    public function asks(Exact $yearTarget, Measurement $measurement, YearPosition $position): Exact
    {
        if ($this === self::Whole || $position->periods === []) {
            return $yearTarget;
        }
        $full = $this === self::LastYear ? $position->fullPriorYear($measurement) : null;
        $same = $full === null || $full->isZero() ? null : $position->samePriorYear($measurement);

        return $full !== null && $same !== null
            ? $yearTarget->times($same)->dividedBy($full)
            : $yearTarget->times(count($position->reported))->dividedBy(Exact::of(count($position->periods)));
    }
}
