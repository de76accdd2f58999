<?php

declare(strict_types=1);

namespace Kybernet\Core\Compare;

use Kybernet\Core\Measure\Band;
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
        /** null where what decides it is missing: a KPI with a band, without one */
        public ?Effect $effect,
    ) {}

    public static function between(Exact $actual, Exact $reference, Polarity $polarity): self
    {
        $difference = $actual->minus($reference);

        return new self($difference, self::percent($difference, $reference), $polarity->effect($difference));
    }

    /** From a band: 0 inside, otherwise the signed distance to the limit that is broken, always adverse. */
    public static function fromBand(Exact $actual, Band $band): self
    {
        $broken = $band->broken($actual);
        if ($broken === null) {
            return new self(Exact::of(0), Exact::of(0), Effect::None);
        }
        $difference = $actual->minus($broken);

        return new self($difference, self::percent($difference, $broken), Effect::Adverse);
    }

    /**
     * From an earlier figure of a KPI with a band: favourable when the distance from the band shrank.
     *
     * @param  array{Band, Exact, Exact}|null  $banded  the band, the figure and the earlier one, over what has a band; null where nothing has
     */
    public static function withinBand(Exact $actual, Exact $earlier, ?array $banded): self
    {
        $difference = $actual->minus($earlier);

        return new self(
            $difference,
            self::percent($difference, $earlier),
            $banded === null ? null : Effect::ofAdverse($banded[0]->distance($banded[1])->minus($banded[0]->distance($banded[2]))),
        );
    }

    private static function percent(Exact $difference, Exact $reference): ?Exact
    {
        return $reference->isZero() ? null : $difference->times(100)->dividedBy($reference->abs());
    }
}
