<?php

declare(strict_types=1);

namespace Kybernet\Core\Measure;

/**
 * A KPI as it is measured in one unit: its definition with the actuals and the targets there. Prior year is the
 * actuals of a year earlier, never a series of its own.
 */
final readonly class Measurement
{
    public function __construct(
        public Definition $definition,
        public Series $actuals,
        public Series $targets,
    ) {}

    public function withActuals(Series $actuals): self
    {
        return new self($this->definition, $actuals, $this->targets);
    }
}
