<?php

declare(strict_types=1);

namespace Kybernet\Core\Measure;

use Kybernet\Core\Calendar\Period;

/**
 * The targets of a KPI as figures, where another target is made of them.
 */
final readonly class TargetFigures implements Figures
{
    public function __construct(private Targets $targets) {}

    public function has(Period $period): bool
    {
        return $this->targets->goal($period)?->target !== null;
    }

    public function absence(Period $period): Absence
    {
        return Absence::Missing;
    }

    public function figure(Period $period): ?Exact
    {
        return $this->targets->goal($period)?->target;
    }

    public function float(Period $period): ?float
    {
        return $this->figure($period)?->toFloat();
    }

    public function gather(array $periods, Accumulation $rule): ?Exact
    {
        return $this->targets->gather($periods, $rule)?->target;
    }

    public function whyNone(array $periods): ?string
    {
        return null;
    }

    /** Targets may reach back before the first of what was set, and nobody asks how far. */
    public function earliest(): ?string
    {
        return null;
    }
}
