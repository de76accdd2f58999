<?php

declare(strict_types=1);

namespace Kybernet\Core\Compare;

use Kybernet\Core\Measure\Exact;
use Kybernet\Core\Status\Polarity;

/**
 * A difference from a reference (target, prior year or the previous period), in the KPI's measure and in percent.
 */
final readonly class Variance
{
    private function __construct(
        /** actual − reference, in the KPI's own measure (percentage points for a percentage) */
        public Exact $difference,
        /** difference ÷ |reference| × 100; null when the reference is 0 */
        public ?Exact $percent,
        public Effect $effect,
    ) {}

    public static function between(Exact $actual, Exact $reference, Polarity $polarity): self
    {
        $difference = $actual->minus($reference);

        return new self(
            $difference,
            $reference->isZero() ? null : $difference->times(100)->dividedBy($reference->abs()),
            $polarity->effect($difference),
        );
    }
}
