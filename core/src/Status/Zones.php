<?php

declare(strict_types=1);

namespace Kybernet\Core\Status;

use Kybernet\Core\Measure\Exact;

/**
 * Where a KPI's own green and amber end, in its own measure: what a graphic shades.
 */
final readonly class Zones
{
    private function __construct(public Exact $green, public Exact $amber) {}

    /**
     * Null where the status does not follow from a place on the scale: polarity none, no limits in force, no target.
     *
     * @param  Exact|null  $target  the target that is shown
     */
    public static function of(Evidence $evidence, ?Exact $target): ?self
    {
        $rule = $evidence->rule;
        if ($rule === null || $evidence->kpi->polarity === Polarity::None) {
            return null;
        }
        if ($rule->measure === Deviation::Level) {
            return new self($evidence->level($rule, Status::Green), $evidence->level($rule, Status::Amber));
        }
        if ($target === null) {
            return null;
        }
        $hundred = Exact::of(100);
        $bound = fn (Exact $percent): Exact => $evidence->kpi->polarity === Polarity::Higher
            ? $target->minus($percent)
            : $target->plus($percent);

        return new self(
            $bound($target->abs()->times($rule->green)->dividedBy($hundred)),
            $bound($target->abs()->times($rule->amber)->dividedBy($hundred)),
        );
    }
}
