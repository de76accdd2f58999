<?php

declare(strict_types=1);

namespace Kybernet\Core\Measure;

use Kybernet\Core\Calendar\Period;

/**
 * The same target in every period: what somebody tries out.
 */
final readonly class SameTargets implements Targets
{
    public function __construct(private Goal $goal) {}

    public function has(Period $period): bool
    {
        return true;
    }

    public function goal(Period $period): Goal
    {
        return $this->goal;
    }

    public function gather(array $periods, Accumulation $rule): ?Goal
    {
        return Goal::combine(array_fill(0, count($periods), $this->goal), $rule->ofTargets());
    }

    public function ofYear(Period $year, array $periods, Accumulation $rule): ?Goal
    {
        // Of a band: a total's by their sum and any other's by their mean, as of bands that were set; all are alike here.
        return $this->gather($periods, $rule);
    }

    public function whyNone(array $periods): ?string
    {
        return null;
    }

    public function set(): SetTargets
    {
        return SetTargets::none();
    }
}
