<?php

declare(strict_types=1);

namespace Kybernet\Core\Status;

use Kybernet\Core\Measure\Band;
use Kybernet\Core\Measure\Exact;

/**
 * Where a KPI's own green and amber end, in its own measure: what a graphic shades.
 */
final readonly class Zones
{
    /**
     * @param  Exact  $green  where green ends; of a band its upper end
     * @param  Exact  $amber  where amber ends, likewise
     * @param  Band|null  $greenBand  inside which a band is green
     * @param  Band|null  $amberBand  inside which it is amber or green
     */
    private function __construct(
        public Exact $green,
        public Exact $amber,
        public ?Band $greenBand = null,
        public ?Band $amberBand = null,
    ) {}

    /**
     * Null where the status does not follow from a place on the scale: polarity none, no limits in force, nothing to
     * compare with.
     *
     * @param  Exact|Band|null  $reference  what is shown to compare with
     */
    public static function of(Evidence $evidence, Exact|Band|null $reference): ?self
    {
        $rule = $evidence->rule;
        if ($rule === null || $evidence->kpi->polarity === Polarity::None) {
            return null;
        }
        if ($rule->measure === Deviation::Level) {
            return $rule->limits instanceof BandLimits
                ? self::ofBands($rule->limits->of(Status::Green, $evidence->factor()), $rule->limits->of(Status::Amber, $evidence->factor()))
                : new self($rule->limits->of(Status::Green, $evidence->factor()), $rule->limits->of(Status::Amber, $evidence->factor()));
        }
        if ($reference === null || ($rule->measure === Deviation::Reached && $reference instanceof Exact && $reference->sign() <= 0)) {
            return null;
        }
        if ($reference instanceof Band) {
            $around = fn (Status $colour): Band => new Band(
                $reference->low->minus(self::reach($evidence, $rule, $colour, $reference->low)),
                $reference->high->plus(self::reach($evidence, $rule, $colour, $reference->high)),
            );

            return self::ofBands($around(Status::Green), $around(Status::Amber));
        }
        $end = fn (Status $colour): Exact => match (true) {
            $rule->measure === Deviation::Reached => $reference->times($evidence->kpi->polarity === Polarity::Higher
                ? $rule->limit($colour, 1)
                : Exact::of(200)->minus($rule->limit($colour, 1)))->dividedBy(Exact::of(100)),
            $evidence->kpi->polarity === Polarity::Higher => $reference->minus(self::reach($evidence, $rule, $colour, $reference)),
            default => $reference->plus(self::reach($evidence, $rule, $colour, $reference)),
        };

        return new self($end(Status::Green), $end(Status::Amber));
    }

    private static function ofBands(Band $green, Band $amber): self
    {
        return new self($green->high, $amber->high, $green, $amber);
    }

    /** How far a colour reaches beyond a reference, in the KPI's measure. */
    private static function reach(Evidence $evidence, RuleSet $rule, Status $colour, Exact $reference): Exact
    {
        return $rule->measure === Deviation::Percent
            ? $reference->abs()->times($rule->limit($colour, 1))->dividedBy(Exact::of(100))
            : $rule->limit($colour, $evidence->factor());
    }
}
