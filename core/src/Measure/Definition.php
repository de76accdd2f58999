<?php

declare(strict_types=1);

namespace Kybernet\Core\Measure;

use Kybernet\Core\Calendar\Period;
use Kybernet\Core\Status\Polarity;
use Kybernet\Core\Status\RuleSet;

/**
 * What the rules need to know of a KPI: how its months accumulate, which way is better, and how it is judged.
 */
final readonly class Definition
{
    /**
     * @param  string  $measure  the unit of measure as people write it, `Ml/d` or `%`
     * @param  int<0, max>  $decimals  decimals of a figure that is shown
     * @param  list<RuleSet>  $rules  the dated rule sets, in any order
     */
    public function __construct(
        public string $measure,
        public int $decimals,
        public Polarity $polarity,
        public Accumulation $accumulation,
        public array $rules,
    ) {}

    /** The newest rule set that starts at or before the month, so that changing a rule never recolours the past. */
    public function ruleAt(Period $month): ?RuleSet
    {
        $inForce = null;
        foreach ($this->rules as $rule) {
            if ($rule->from->compareTo($month) <= 0 && ($inForce === null || $rule->from->compareTo($inForce->from) > 0)) {
                $inForce = $rule;
            }
        }

        return $inForce;
    }

    /** Absolute differences of a percentage are percentage points. */
    public function isPercentage(): bool
    {
        return $this->measure === '%';
    }
}
