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
     * @param  iterable<array{Status, BigDecimal}>  $members  status and weight of each KPI and unit directly below
     * @param  Counts  $counts  of all KPIs below the unit, at any depth
     */
    public static function of(RollUpMethod $method, iterable $members, Counts $counts): self
    {
        $weights = self::weights($members);
        $judged = $weights['green']->plus($weights['amber'])->plus($weights['red']);
        $known = $judged->plus($weights['no-data']);
        if ($known->isZero()) {
            return new self(Status::NotJudged, null, null, $counts);
        }
        $coverage = $judged->toFloat() / $known->toFloat();
        $scored = $weights['green']->multipliedBy(2)->plus($weights['amber']);
        $score = $judged->isZero() ? null : $scored->toFloat() / $judged->toFloat();
        if ($judged->multipliedBy(100)->isLessThan($known->multipliedBy(self::LEAST_COVERAGE_PERCENT))) {
            return new self(Status::NoData, $score, $coverage, $counts);
        }

        return new self(match ($method->name) {
            'weighted' => self::weighted($method, $scored, $judged),
            'worst' => self::worst($weights['red'], $weights['amber']),
            default => self::share($method, $weights['green'], $weights['red'], $judged),
        }, $score, $coverage, $counts);
    }

    /**
     * Weights are few objects, members may be many: each is counted first, and added once.
     *
     * @param  iterable<array{Status, BigDecimal}>  $members
     * @return array<string, BigDecimal> by status
     */
    private static function weights(iterable $members): array
    {
        $times = [];
        $objects = [];
        foreach ($members as [$status, $weight]) {
            $id = spl_object_id($weight);
            $objects[$id] = $weight;
            $times[$status->value][$id] = ($times[$status->value][$id] ?? 0) + 1;
        }
        $weights = [];
        foreach (Status::cases() as $status) {
            $weights[$status->value] = BigDecimal::zero();
            foreach ($times[$status->value] ?? [] as $id => $count) {
                $weights[$status->value] = $weights[$status->value]->plus($objects[$id]->multipliedBy($count));
            }
        }

        return $weights;
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
