<?php

declare(strict_types=1);

namespace Kybernet\Core\Compare;

use Kybernet\Core\Calendar\Period;
use Kybernet\Core\Measure\Exact;
use Kybernet\Core\Measure\Measurement;
use Kybernet\Core\Measure\Series;

/**
 * A span's figures gathered over the same months on both sides: the actual over the months that have one, the target
 * over those of them that have a target.
 */
final readonly class LikeForLike
{
    /**
     * @param  list<Period>  $months  of the span
     * @param  list<Period>  $reported  those that have an actual
     * @param  int  $compared  how many of the reported have a target
     * @param  Exact|null  $target  over the compared months; of the whole span when nothing is reported
     * @param  Exact|null  $comparedActual  the actual over the months that have a target too
     */
    private function __construct(
        public array $months,
        public array $reported,
        public int $compared,
        public ?Exact $actual,
        public ?Exact $target,
        public ?Exact $comparedActual,
    ) {}

    /** @param  list<Period>  $months of the span, earliest first */
    public static function gather(Measurement $measurement, array $months): self
    {
        $rule = $measurement->definition->accumulation;
        $actuals = $measurement->actuals;
        $reported = self::having($actuals, $months);
        $compared = self::having($measurement->targets, $reported);
        $actual = $rule->gather($actuals, $reported);

        return new self(
            $months,
            $reported,
            count($compared),
            $actual,
            $rule->gather($measurement->targets, $reported === [] ? $months : $compared),
            count($compared) === count($reported) ? $actual : $rule->gather($actuals, $compared),
        );
    }

    /**
     * The actual over some of the reported months; as many of them are all of them, and gathered already.
     *
     * @param  list<Period>  $some
     */
    public function over(array $some, Measurement $measurement): ?Exact
    {
        return count($some) === count($this->reported)
            ? $this->actual
            : $measurement->definition->accumulation->gather($measurement->actuals, $some);
    }

    /**
     * The months of the span without a reading.
     *
     * @return list<Period>
     */
    public function missing(): array
    {
        return array_values(array_filter($this->months, fn (Period $month): bool => ! in_array($month, $this->reported, true)));
    }

    /**
     * @param  list<Period>  $months
     * @return list<Period>
     */
    private static function having(Series $series, array $months): array
    {
        return array_values(array_filter($months, $series->has(...)));
    }
}
