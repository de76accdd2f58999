<?php

declare(strict_types=1);

namespace Kybernet\Core\Compare;

use Kybernet\Core\Measure\Exact;
use Kybernet\Core\Measure\GatheredFigures;
use Kybernet\Core\Measure\Measurement;

/**
 * A span's prior-year figure, like for like: over the reported periods, moved back a year. It is last year's readings
 * and never a second copy of them.
 */
final readonly class PriorYear
{
    /**
     * @param  int  $compared  how many of the reported periods have an actual a year earlier
     * @param  Exact|null  $figure  last year, over those
     * @param  Exact|null  $comparedActual  this year, over the same periods
     */
    private function __construct(
        public int $compared,
        public ?Exact $figure,
        public ?Exact $comparedActual,
    ) {}

    public static function gather(Measurement $measurement, LikeForLike $figures): self
    {
        $periods = [];
        $yearEarlier = [];
        $pairs = [];
        foreach ($figures->reported as $period) {
            $earlier = $period->yearEarlier();
            if ($earlier !== null && $measurement->actuals->has($earlier)) {
                $periods[] = $period;
                $yearEarlier[] = $earlier;
                $pairs[] = [$period, $earlier];
            }
        }

        if ($measurement->actuals instanceof GatheredFigures && $periods !== []) {
            // Over units too: only those that have both years.
            $alike = $measurement->actuals->alike($pairs);
            $rule = $measurement->definition->accumulation;

            return new self(count($periods), $alike->gather($yearEarlier, $rule), $alike->gather($periods, $rule));
        }

        return new self(
            count($periods),
            $measurement->gather($yearEarlier),
            $periods === [] ? null : $figures->over($periods, $measurement),
        );
    }
}
