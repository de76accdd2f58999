<?php

declare(strict_types=1);

namespace Kybernet\Core\Compare;

use Kybernet\Core\Calendar\Period;
use Kybernet\Core\Measure\Band;
use Kybernet\Core\Measure\Exact;
use Kybernet\Core\Measure\Figures;
use Kybernet\Core\Measure\GatheredFigures;
use Kybernet\Core\Measure\Measurement;
use Kybernet\Core\Status\Polarity;

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
     * @param  array{Band, Exact, Exact}|null  $banded  of a KPI with a band, over those of the periods that have one: the band, this year's figure and last year's
     */
    private function __construct(
        public int $compared,
        public ?Exact $figure,
        public ?Exact $comparedActual,
        public ?array $banded,
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

        // Over units too: only those that have both years.
        $actuals = $measurement->actuals instanceof GatheredFigures && $pairs !== [] ? $measurement->actuals->alike($pairs) : $measurement->actuals;
        $rule = $measurement->definition->accumulation;

        return new self(
            count($periods),
            $actuals->gather($yearEarlier, $rule),
            match (true) {
                $periods === [] => null,
                $actuals === $measurement->actuals => $figures->over($periods, $measurement),
                default => $actuals->gather($periods, $rule),
            },
            $measurement->definition->polarity === Polarity::Band ? self::banded($measurement, $actuals, $pairs) : null,
        );
    }

    /**
     * @param  list<array{Period, Period}>  $pairs
     * @return array{Band, Exact, Exact}|null
     */
    private static function banded(Measurement $measurement, Figures $actuals, array $pairs): ?array
    {
        $pairs = array_values(array_filter($pairs, fn (array $pair): bool => $measurement->targets->has($pair[0])));
        $rule = $measurement->definition->accumulation;
        $band = $measurement->targets->gather(array_column($pairs, 0), $rule)?->band;
        $actual = $actuals->gather(array_column($pairs, 0), $rule);
        $earlier = $actuals->gather(array_column($pairs, 1), $rule);

        return $band === null || $actual === null || $earlier === null ? null : [$band, $actual, $earlier];
    }
}
