<?php

declare(strict_types=1);

namespace Kybernet\Core\Status;

use Closure;
use Kybernet\Core\Measure\Band;
use Kybernet\Core\Measure\Exact;

/**
 * Where figures lie on a KPI's own limits, so that all KPIs can be drawn on one line: 0 is the limit of green, 1 that of
 * amber; below 0 is on course, between them drifting, beyond 1 off course.
 *
 * On which side of a limit a figure lies is decided on exact decimals, as the status is; only how far is a float.
 */
final readonly class Course
{
    /** Where figures lie that no percentage can be told of: beaten by any distance, and missed by any. */
    private const BEATEN = -3.0;

    private const MISSED = 3.0;

    /** A step of percentages where the KPI has no usual one. */
    private const USUAL_PERCENT = 5.0;

    /** A step of anything else, as a share of what is compared with. */
    private const USUAL_SHARE = 0.05;

    /**
     * @param  float|null  $now  the figure on which the status is decided
     * @param  float|null  $before  the same span as of the month before
     * @param  float|null  $prior  the prior-year figure, over the periods that have one
     * @param  float|null  $target  the reference itself, where it is the target
     */
    public function __construct(public ?float $now, public ?float $before, public ?float $prior, public ?float $target) {}

    /**
     * Which of several figures lies furthest off course; null where none lies anywhere.
     *
     * @template Key of array-key
     *
     * @param  array<Key, float|null>  $places
     * @return Key|null the first of those that lie alike
     */
    public static function worst(array $places): int|string|null
    {
        $worst = null;
        foreach ($places as $key => $place) {
            if ($place !== null && ($worst === null || $place > $places[$worst])) {
                $worst = $key;
            }
        }

        return $worst;
    }

    /**
     * Where a value lies under the rule, reference and number of periods of the evidence; null where these judge nothing.
     *
     * @param  Closure(): ?float  $movingRange  by how much single figures usually differ from the one before; asked only where nothing lies between green and red
     */
    public static function place(Evidence $evidence, Exact $value, Closure $movingRange): ?float
    {
        $rule = $evidence->rule;
        if ($rule === null || $evidence->kpi->polarity === Polarity::None) {
            return null;
        }
        if ($rule->limits instanceof BandLimits) {
            return self::inLevels($evidence, $rule->limits, $value, $movingRange);
        }
        if ($rule->measure === Deviation::Level) {
            $green = $rule->limits->of(Status::Green, $evidence->factor());
            $adverse = $evidence->kpi->polarity->adverse($value->minus($green));
            $width = $evidence->kpi->polarity->adverse($rule->limits->of(Status::Amber, $evidence->factor())->minus($green));

            return self::at($adverse, $width, fn (): float => self::step($movingRange(), $evidence->factor(), $green));
        }
        $reference = $evidence->reference;

        return match (true) {
            $reference === null => null,
            $rule->measure === Deviation::Percent => self::inPercent($evidence, $rule->limits, $value, $reference, $movingRange),
            $rule->measure === Deviation::Absolute => self::inMeasure($evidence, $rule->limits, $value, $reference, $movingRange),
            default => $reference instanceof Exact ? self::inShare($evidence, $rule->limits, $value, $reference, $movingRange) : null,
        };
    }

    /** @param  Closure(): ?float  $movingRange */
    private static function inPercent(Evidence $evidence, Limits $limits, Exact $value, Exact|Band $reference, Closure $movingRange): float
    {
        $base = $reference instanceof Band ? self::nearer($reference, $value) : $reference;
        $adverse = self::adverse($evidence, $value, $reference);
        if ($base->isZero() && ! ($reference instanceof Exact && $adverse->isZero())) {
            return $adverse->sign() > 0 ? self::MISSED : self::BEATEN;
        }
        $percent = $base->isZero() ? Exact::of(0) : $adverse->times(100)->dividedBy($base->abs());
        $range = fn (): ?float => $base->isZero() ? null : self::scaled($movingRange(), 100 / abs($base->toFloat()));

        return self::between($percent, $limits, 1, fn (): float => self::percentStep($range()));
    }

    /** @param  Closure(): ?float  $movingRange */
    private static function inMeasure(Evidence $evidence, Limits $limits, Exact $value, Exact|Band $reference, Closure $movingRange): float
    {
        $base = $reference instanceof Band ? self::nearer($reference, $value) : $reference;

        return self::between(
            self::adverse($evidence, $value, $reference),
            $limits,
            $evidence->factor(),
            fn (): float => self::step($movingRange(), $evidence->factor(), $base),
        );
    }

    /** @param  Closure(): ?float  $movingRange */
    private static function inShare(Evidence $evidence, Limits $limits, Exact $value, Exact $reference, Closure $movingRange): ?float
    {
        if ($reference->sign() <= 0) {
            return null;
        }
        $share = $value->times(100)->dividedBy($reference);
        $reached = $evidence->kpi->polarity === Polarity::Higher ? $share : Exact::of(200)->minus($share);
        $short = fn (Exact $percent): Exact => Exact::of(100)->minus($percent);
        $green = $short($limits->of(Status::Green, 1));

        return self::at(
            $short($reached)->minus($green),
            $short($limits->of(Status::Amber, 1))->minus($green),
            fn (): float => self::percentStep(self::scaled($movingRange(), 100 / $reference->toFloat())),
        );
    }

    /** @param  Closure(): ?float  $movingRange */
    private static function inLevels(Evidence $evidence, BandLimits $limits, Exact $value, Closure $movingRange): float
    {
        $band = $limits->of(Status::Green, $evidence->factor());
        $nearer = self::nearer($band, $value);
        $margin = Exact::of($nearer === $band->low ? $limits->marginLow : $limits->marginHigh)->times($evidence->factor());

        return self::at(self::outside($band, $value), $margin, fn (): float => self::step($movingRange(), $evidence->factor(), $nearer));
    }

    /** @param  Closure(): float  $step */
    private static function between(Exact $adverse, Limits $limits, int $factor, Closure $step): float
    {
        $green = $limits->of(Status::Green, $factor);

        return self::at($adverse->minus($green), $limits->of(Status::Amber, $factor)->minus($green), $step);
    }

    /**
     * @param  Exact  $beyond  how far beyond the limit of green, adverse above 0
     * @param  Exact  $width  from the limit of green to that of amber, never below 0
     * @param  Closure(): float  $step  what takes the place of a width of 0
     */
    private static function at(Exact $beyond, Exact $width, Closure $step): float
    {
        if ($width->isZero()) {
            // Nothing lies between green and red, and red is never drawn as drifting.
            return ($beyond->sign() > 0 ? 1.0 + PHP_FLOAT_EPSILON : 0.0) + $beyond->toFloat() / $step();
        }
        $place = $beyond->toFloat() / $width->toFloat();

        return match (true) {
            $beyond->sign() <= 0 => min(0.0, $place),
            $beyond->compareTo($width) <= 0 => max(PHP_FLOAT_MIN, min(1.0, $place)),
            default => max(1.0 + PHP_FLOAT_EPSILON, $place),
        };
    }

    /** The adverse deviation; inside a band minus the distance to the limit that is nearer. */
    private static function adverse(Evidence $evidence, Exact $value, Exact|Band $reference): Exact
    {
        return $reference instanceof Band ? self::outside($reference, $value) : $evidence->deviation($value, $reference);
    }

    private static function outside(Band $band, Exact $value): Exact
    {
        return $band->broken($value) === null ? $value->minus(self::nearer($band, $value))->abs()->negated() : $band->distance($value);
    }

    /** The limit of the band that lies nearer; half-way the lower one. */
    private static function nearer(Band $band, Exact $value): Exact
    {
        return $value->minus($band->low)->abs()->compareTo($value->minus($band->high)->abs()) <= 0 ? $band->low : $band->high;
    }

    private static function scaled(?float $range, float $factor): ?float
    {
        return $range === null ? null : $range * $factor;
    }

    private static function percentStep(?float $range): float
    {
        return $range === null || $range === 0.0 ? self::USUAL_PERCENT : $range;
    }

    /** @param  Exact  $base  what the figure is held against */
    private static function step(?float $range, int $factor, Exact $base): float
    {
        $share = self::USUAL_SHARE * abs($base->toFloat());

        return match (true) {
            $range !== null && $range !== 0.0 => $range * $factor,
            $share !== 0.0 => $share,
            default => 1.0,
        };
    }
}
