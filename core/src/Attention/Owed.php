<?php

declare(strict_types=1);

namespace Kybernet\Core\Attention;

use Kybernet\Core\Calendar\Period;
use Kybernet\Core\Measure\Absence;
use Kybernet\Core\Measure\Definition;
use Kybernet\Core\Measure\GatheredFigures;
use Kybernet\Core\Measure\Kind;
use Kybernet\Core\Measure\Measurement;
use Kybernet\Core\Measure\Series;
use Kybernet\Core\Status\Status;

/**
 * What people owe: a reading for each period, and a reason for each bad colour. Every screen that counts what is missing,
 * late or unexplained counts this.
 */
final readonly class Owed
{
    /**
     * @param  int  $readings  how many somebody owes
     * @param  int  $arrived  how many of those are there
     */
    private function __construct(public int $readings, public int $arrived) {}

    /**
     * Of some periods of a KPI, such as those that end in a month.
     *
     * @param  list<Period>  $periods
     */
    public static function of(Measurement $measurement, array $periods): self
    {
        return self::byPeople($measurement)
            ? new self(count($periods), count(array_filter($periods, $measurement->actuals->has(...))))
            : new self(0, 0);
    }

    /** Whether people enter its readings in the unit itself: what is worked out or gathered, nobody owes. */
    public static function byPeople(Measurement $measurement): bool
    {
        return in_array($measurement->definition->kind, [Kind::Entered, Kind::Judged], true) && $measurement->actuals instanceof Series;
    }

    /** Whether the reading of a period should be there and is not: a feed that died hides nothing. */
    public static function isMissing(Measurement $measurement, Period $period): bool
    {
        $actuals = $measurement->actuals;
        $isCounted = $measurement->definition->kind === Kind::Records && ! $actuals instanceof GatheredFigures;

        return (self::byPeople($measurement) || $isCounted) && ! $actuals->has($period) && $actuals->absence($period) === Absence::Missing;
    }

    /** Whether a person gives its colours, each with the reason for it. */
    public static function asksReason(Definition $definition): bool
    {
        return $definition->kind === Kind::Judged;
    }

    /** Whether a colour that a person gives stands without its reason. */
    public static function colourLacksReason(?Status $colour, bool $isNoted): bool
    {
        return $colour !== null && ! $isNoted;
    }

    /** Whether a colour asks for a reason that is not given: a note that says nothing of why is none. */
    public static function lacksReason(Status $status, ?string $reason): bool
    {
        return in_array($status, [Status::Red, Status::Amber], true) && ($reason ?? '') === '';
    }
}
