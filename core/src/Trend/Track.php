<?php

declare(strict_types=1);

namespace Kybernet\Core\Trend;

use Kybernet\Core\Calendar\Period;
use Kybernet\Core\Measure\Exact;
use Kybernet\Core\Measure\Kind;
use Kybernet\Core\Measure\Measurement;

/**
 * The range of what is only counted: the lowest and the highest of its last periods, and where the latest lies between
 * them. Nothing of it is judged.
 */
final readonly class Track
{
    public const PERIODS = 25;

    /**
     * @param  float|null  $now  the latest period, 0 at the lowest and 1 at the highest
     * @param  float|null  $before  the period before
     * @param  float|null  $prior  the same period a year earlier
     */
    private function __construct(public Exact $low, public Exact $high, public ?float $now, public ?float $before, public ?float $prior) {}

    /**
     * Null where there are no figures, and of a judged KPI.
     *
     * @param  list<Period>  $periods  the last ones, the latest at the end
     */
    public static function over(Measurement $measurement, array $periods): ?self
    {
        $known = Exact::known(array_map($measurement->actuals->figure(...), $periods));
        if ($known === [] || $measurement->definition->kind === Kind::Judged) {
            return null;
        }
        [$low, $high] = [$known[0], $known[0]];
        foreach ($known as $figure) {
            $low = $figure->compareTo($low) < 0 ? $figure : $low;
            $high = $figure->compareTo($high) > 0 ? $figure : $high;
        }
        $range = $high->minus($low)->toFloat();
        $at = function (?Period $period) use ($measurement, $low, $range): ?float {
            $figure = $period === null ? null : $measurement->actuals->figure($period);

            return match (true) {
                $figure === null => null,
                $range === 0.0 => 0.5,
                default => $figure->minus($low)->toFloat() / $range,
            };
        };
        $latest = $periods[count($periods) - 1];

        return new self($low, $high, $at($latest), $at($latest->previous()), $at($latest->yearEarlier()));
    }
}
