<?php

declare(strict_types=1);

namespace Kybernet\Core\Compare;

use Kybernet\Core\Calendar\Period;
use Kybernet\Core\Measure\Absence;
use Kybernet\Core\Measure\Exact;
use Kybernet\Core\Measure\GatheredFigures;
use Kybernet\Core\Measure\Goal;
use Kybernet\Core\Measure\Measurement;

/**
 * A span's figures gathered over the same periods on both sides: the actual over the periods that have one, the target
 * over those of them that have a target.
 */
final readonly class LikeForLike
{
    /**
     * @param  list<Period>  $due  of the span, in the KPI's own frequency
     * @param  list<Period>  $expected  those that have an actual, or should have one
     * @param  list<Period>  $reported  those that have an actual
     * @param  int  $compared  how many of the reported have a target
     * @param  Goal|null  $goal  over the compared periods; of the whole span when nothing is reported
     * @param  Exact|null  $comparedActual  the actual over the periods that have a target too
     */
    private function __construct(
        public array $due,
        public array $expected,
        public array $reported,
        public int $compared,
        public ?Exact $actual,
        public ?Goal $goal,
        public ?Exact $comparedActual,
    ) {}

    /** @param  list<Period>  $due of the span, earliest first */
    public static function gather(Measurement $measurement, array $due): self
    {
        $reported = [];
        $expected = [];
        foreach ($due as $period) {
            if ($measurement->actuals->has($period)) {
                $reported[] = $period;
                $expected[] = $period;
            } elseif ($measurement->actuals->absence($period) === Absence::Missing) {
                $expected[] = $period;
            }
        }
        // Over units: only those that have both, a figure and a target.
        $aimed = $measurement->actuals instanceof GatheredFigures ? $measurement->actuals->aimed() : null;
        $compared = [];
        foreach ($reported as $period) {
            if ($measurement->targets->has($period) && ($aimed === null || $aimed->has($period))) {
                $compared[] = $period;
            }
        }
        $actual = $measurement->gather($reported);
        $goal = $measurement->targets->gather($reported === [] ? $due : $compared, $measurement->definition->accumulation);
        // A formula may give each period a target and the span none: then nothing is compared.
        $compared = $goal === null ? [] : $compared;

        return new self(
            $due,
            $expected,
            $reported,
            count($compared),
            $actual,
            $goal,
            match (true) {
                $aimed !== null => $aimed->gather($compared, $measurement->definition->accumulation),
                count($compared) === count($reported) => $actual,
                default => $measurement->gather($compared),
            },
        );
    }

    /**
     * The actual over some of the reported periods; as many of them are all of them, and gathered already.
     *
     * @param  list<Period>  $some
     */
    public function over(array $some, Measurement $measurement): ?Exact
    {
        return count($some) === count($this->reported) ? $this->actual : $measurement->gather($some);
    }

    /**
     * The periods of the span that should have a reading and have none.
     *
     * @return list<Period>
     */
    public function missing(): array
    {
        return array_values(array_filter($this->expected, fn (Period $period): bool => ! in_array($period, $this->reported, true)));
    }
}
