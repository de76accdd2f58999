<?php

declare(strict_types=1);

namespace Kybernet\Core\Compare;

use Kybernet\Core\Measure\Exact;
use Kybernet\Core\Measure\Measurement;

/**
 * A span's prior-year figure, like for like: over the reported months, moved back a year. It is last year's readings
 * and never a second copy of them.
 */
final readonly class PriorYear
{
    /**
     * @param  int  $compared  how many of the reported months have an actual a year earlier
     * @param  Exact|null  $figure  last year, over those
     * @param  Exact|null  $comparedActual  this year, over the same months
     */
    private function __construct(
        public int $compared,
        public ?Exact $figure,
        public ?Exact $comparedActual,
    ) {}

    public static function gather(Measurement $measurement, LikeForLike $figures): self
    {
        $months = [];
        $yearEarlier = [];
        foreach ($figures->reported as $month) {
            $earlier = $month->yearEarlier();
            if ($measurement->actuals->has($earlier)) {
                $months[] = $month;
                $yearEarlier[] = $earlier;
            }
        }

        return new self(
            count($months),
            $measurement->definition->accumulation->gather($measurement->actuals, $yearEarlier),
            $figures->over($months, $measurement),
        );
    }
}
