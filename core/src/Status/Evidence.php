<?php

declare(strict_types=1);

namespace Kybernet\Core\Status;

use Kybernet\Core\Compare\LikeForLike;
use Kybernet\Core\Measure\Definition;
use Kybernet\Core\Measure\Exact;

/**
 * All that a status is decided on, gathered over the periods that the rule set can compare.
 */
final readonly class Evidence
{
    /**
     * @param  Exact|null  $actual  over the periods compared; null when nothing is reported
     * @param  Exact|null  $target  over the same periods; null when there is none
     * @param  positive-int  $periods  how many are compared: levels under a sum grow with them
     */
    public function __construct(
        public Definition $kpi,
        public ?RuleSet $rule,
        public ?Exact $actual,
        public ?Exact $target,
        public int $periods,
    ) {}

    public static function from(Definition $kpi, ?RuleSet $rule, LikeForLike $figures): self
    {
        $target = $figures->compared > 0 ? $figures->target : null;
        $onTarget = $rule?->reference->needsTarget() === true && $target !== null;

        return new self(
            $kpi,
            $rule,
            $onTarget ? $figures->comparedActual : $figures->actual,
            $target,
            max(1, $onTarget ? $figures->compared : count($figures->reported)),
        );
    }

    /** A level of the rule set, grown to the periods compared. */
    public function level(RuleSet $rule, Status $colour): Exact
    {
        return Exact::of($colour === Status::Green ? $rule->green : $rule->amber)
            ->times($this->kpi->accumulation->limitFactor($this->periods));
    }
}
