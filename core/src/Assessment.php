<?php

declare(strict_types=1);

namespace Kybernet\Core;

use Kybernet\Core\Compare\LikeForLike;
use Kybernet\Core\Compare\PriorYear;
use Kybernet\Core\Compare\Variance;
use Kybernet\Core\Status\Evidence;
use Kybernet\Core\Status\Explanation;
use Kybernet\Core\Status\Status;
use Kybernet\Core\Status\Zones;

/**
 * One KPI in one unit on one span: its figures, how they compare, and what they were judged to be.
 */
final readonly class Assessment
{
    public function __construct(
        public LikeForLike $figures,
        public PriorYear $prior,
        /** against the target */
        public ?Variance $variance,
        /** against the same months a year earlier */
        public ?Variance $change,
        /** against the previous period; only where the span holds one period */
        public ?Variance $step,
        public Status $status,
        public ?Zones $zones,
        private Evidence $evidence,
    ) {}

    /** The sentence that defends the status: rule, reference, deviation and limits. */
    public function reason(): string
    {
        return Explanation::of($this->evidence, $this->status);
    }
}
