<?php

declare(strict_types=1);

namespace Kybernet\Core\Measure;

use Kybernet\Core\Calendar\Period;
use Kybernet\Core\Calendar\Tenure;
use Kybernet\Core\Status\Call;
use Kybernet\Core\Status\RuleSet;

/**
 * What is kept of a KPI in one unit: its own figures, before formulas and gathering have been worked out.
 */
final readonly class KeptMeasurement
{
    /**
     * @param  string  $kpi  its code
     * @param  string  $unit  its code
     * @param  Series  $readings  of a judged KPI the scores of its colours
     * @param  Series  $targets  of a band its lower ones
     * @param  Series  $upperTargets  of a band
     * @param  array<string, string>  $yearTargets  figures set for whole years, by year; of a band the lower ones
     * @param  array<string, string>  $upperYearTargets  of a band
     * @param  bool  $isGathered  worked out from the units below
     * @param  list<RuleSet>  $ownRules
     * @param  list<Period>|null  $baseline
     * @param  list<Call>  $calls
     */
    public function __construct(
        public string $kpi,
        public string $unit,
        public Definition $definition,
        public Series $readings,
        public Series $targets,
        public Series $upperTargets = new Series([]),
        public array $yearTargets = [],
        public array $upperYearTargets = [],
        public bool $isGathered = false,
        public Tenure $tenure = new Tenure,
        public array $ownRules = [],
        public ?array $baseline = null,
        public array $calls = [],
    ) {}

    /** The same with other readings. */
    public function reading(Series $readings): self
    {
        return new self(
            $this->kpi, $this->unit, $this->definition, $readings, $this->targets, $this->upperTargets, $this->yearTargets, $this->upperYearTargets,
            $this->isGathered, $this->tenure, $this->ownRules, $this->baseline, $this->calls,
        );
    }

    /** The same figures under another idea of good, as it is tried out: no unit's own rules, and no calls. */
    public function trying(Definition $definition, Series $targets, Series $upperTargets): self
    {
        return new self(
            $this->kpi, $this->unit, $definition, $this->readings, $targets, $upperTargets, $this->yearTargets, $this->upperYearTargets,
            $this->isGathered, $this->tenure, [], $this->baseline,
        );
    }
}
