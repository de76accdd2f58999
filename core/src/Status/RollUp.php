<?php

declare(strict_types=1);

namespace Kybernet\Core\Status;

use Brick\Math\BigDecimal;

/**
 * A unit's status on a span, from the KPIs and units directly under it.
 *
 * Red scores 0, amber 1, green 2; the score is the weighted mean of what is judged. Comparisons with the cuts multiply
 * across, on exact decimals.
 */
final readonly class RollUp
{
    /** Below this share of the weight judged, a unit has no reading rather than a flattering colour. */
    private const LEAST_COVERAGE_PERCENT = 50;

    private function __construct(
        public Status $status,
        /** 0 (all red) to 2 (all green); null when nothing is judged */
        public ?float $score,
        /** judged weight ÷ (judged + no-data weight), 0 to 1; null when nothing could be judged */
        public ?float $coverage,
        public Counts $counts,
    ) {}

    /**
     * @param  Tally  $members  the KPIs and units directly below
     * @param  Counts|null  $counts  of all KPIs below the unit, at any depth; null where the members are all there is
     */
    public static function of(RollUpMethod $method, Tally $members, ?Counts $counts = null): self
    {
        $counts ??= $members->counts();
        $green = $members->weight(Status::Green);
        $amber = $members->weight(Status::Amber);
        $red = $members->weight(Status::Red);
        $judged = $green->plus($amber)->plus($red);
        $known = $judged->plus($members->weight(Status::NoData));
        if ($known->isZero()) {
            return new self(Status::NotJudged, null, null, $counts);
        }
        $coverage = $judged->toFloat() / $known->toFloat();
        $scored = $green->multipliedBy(2)->plus($amber);
        $score = $judged->isZero() ? null : $scored->toFloat() / $judged->toFloat();
        if ($judged->multipliedBy(100)->isLessThan($known->multipliedBy(self::LEAST_COVERAGE_PERCENT))) {
            return new self(Status::NoData, $score, $coverage, $counts);
        }

        return new self(match ($method->rule) {
            RollUpRule::Weighted => self::weighted($method, $scored, $judged),
            RollUpRule::Worst => self::worst($red, $amber),
            RollUpRule::Share => self::share($method, $green, $red, $judged),
        }, $score, $coverage, $counts);
    }

    /** What stands in a group, a row or a column together, outside the tree of units: each KPI weighs what it weighs in its unit. */
    public static function together(Tally $members): self
    {
        return self::of(RollUpMethod::weighted(), $members);
    }

    private static function weighted(RollUpMethod $method, BigDecimal $scored, BigDecimal $judged): Status
    {
        return match (true) {
            $scored->isGreaterThanOrEqualTo($judged->multipliedBy($method->green)) => Status::Green,
            $scored->isGreaterThanOrEqualTo($judged->multipliedBy($method->amberOrRed)) => Status::Amber,
            default => Status::Red,
        };
    }

    private static function worst(BigDecimal $red, BigDecimal $amber): Status
    {
        return match (true) {
            $red->isPositive() => Status::Red,
            $amber->isPositive() => Status::Amber,
            default => Status::Green,
        };
    }

    private static function share(RollUpMethod $method, BigDecimal $green, BigDecimal $red, BigDecimal $judged): Status
    {
        $percentOf = fn (BigDecimal $part): BigDecimal => $part->multipliedBy(100);

        return match (true) {
            $percentOf($red)->isGreaterThan($judged->multipliedBy($method->amberOrRed)) => Status::Red,
            $red->isZero() && $percentOf($green)->isGreaterThanOrEqualTo($judged->multipliedBy($method->green)) => Status::Green,
            default => Status::Amber,
        };
    }
}
