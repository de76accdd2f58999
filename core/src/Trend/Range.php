<?php

declare(strict_types=1);

namespace Kybernet\Core\Trend;

use Closure;
use Kybernet\Core\Measure\Accumulation;
use Kybernet\Core\Measure\Band;
use Kybernet\Core\Measure\Definition;
use Kybernet\Core\Measure\Exact;
use Kybernet\Core\Status\Polarity;

/**
 * Between what a projection will end four times in five if the KPI goes on varying as it does, and how likely it ends on
 * target.
 */
final readonly class Range
{
    /** Mean moving range ÷ this is the standard deviation of single figures (NIST/SEMATECH e-Handbook, 6.3.2.2). */
    private const RANGE_TO_DEVIATION = 1.128;

    /** Of the normal distribution one time in ten lies beyond this many standard deviations, on each side. */
    private const NORMAL_TENTH = 1.2815515655446;

    /** @param  float|null  $chance  of ending at or better than the year target; null without one, and for what is only tracked */
    private function __construct(public float $low, public float $high, public ?float $chance) {}

    /**
     * Null where nothing is left of the year, where how much the KPI varies is not known, and for projections that no
     * variation of single figures says anything of.
     *
     * @param  float|null  $movingRange  mean moving range of the baseline
     * @param  Trend|null  $trend  that the line of the projection is
     * @param  int  $ahead  periods from the latest to the last of the year, in the places of the trend
     */
    public static function of(Projection $projection, Definition $kpi, YearPosition $position, ?float $movingRange, ?Trend $trend, int $ahead): ?self
    {
        $left = $position->left();
        if ($projection->value === null || $left === 0) {
            return null;
        }
        $isLine = $projection->method === ProjectionMethod::TrendLine;
        $deviation = $movingRange === null ? null : $movingRange / self::RANGE_TO_DEVIATION;
        $spread = match ($projection->method) {
            ProjectionMethod::SoFar, ProjectionMethod::Operands => null,
            ProjectionMethod::TrendLine => $trend?->line->predictionError(Trend::PERIODS + $ahead),
            ProjectionMethod::LastValue => $deviation === null ? null : $deviation * sqrt($left),
            ProjectionMethod::Seasonal, ProjectionMethod::RunRate => match (true) {
                $deviation === null => null,
                $kpi->accumulation === Accumulation::Sum => $deviation * sqrt($left),
                default => $deviation * sqrt($left) / (count($position->reported) + $left),
            },
        };
        if ($spread === null) {
            return null;
        }
        $freedom = $isLine && $trend !== null ? $trend->line->n - 2 : null;
        $reach = ($freedom === null ? self::NORMAL_TENTH : StudentT::ninetieth($freedom)) * $spread;
        $value = $projection->value->toFloat();
        $below = fn (float $z): float => $freedom === null ? Normal::below($z) : StudentT::below($z, $freedom);

        return new self(
            Projection::bounded($value - $reach, $kpi, count($position->periods)),
            Projection::bounded($value + $reach, $kpi, count($position->periods)),
            self::chance($projection, $kpi->polarity, $value, $spread, $below),
        );
    }

    /** @param  Closure(float): float  $below  the distribution function */
    private static function chance(Projection $projection, Polarity $polarity, float $value, float $spread, Closure $below): ?float
    {
        $aim = $projection->yearBand ?? $projection->yearTarget;
        if ($aim === null || $polarity === Polarity::None || ($aim instanceof Band) !== ($polarity === Polarity::Band)) {
            return null;
        }
        if ($spread === 0.0) {
            return self::isReached($projection->value, $aim, $polarity) ? 1.0 : 0.0;
        }
        if ($aim instanceof Band) {
            return max(0.0, $below(($aim->high->toFloat() - $value) / $spread) - $below(($aim->low->toFloat() - $value) / $spread));
        }
        $ahead = ($value - $aim->toFloat()) / $spread;

        return $below($polarity === Polarity::Higher ? $ahead : -$ahead);
    }

    private static function isReached(?Exact $value, Exact|Band $aim, Polarity $polarity): bool
    {
        return match (true) {
            $value === null => false,
            $aim instanceof Band => $aim->broken($value) === null,
            default => $polarity->adverse($value->minus($aim))->sign() <= 0,
        };
    }
}
