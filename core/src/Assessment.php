<?php

declare(strict_types=1);

namespace Kybernet\Core;

use Kybernet\Core\Compare\LikeForLike;
use Kybernet\Core\Compare\PriorYear;
use Kybernet\Core\Compare\Variance;
use Kybernet\Core\Measure\GatheredFigures;
use Kybernet\Core\Measure\Measurement;
use Kybernet\Core\Measure\TargetFrom;
use Kybernet\Core\Status\Call;
use Kybernet\Core\Status\Evidence;
use Kybernet\Core\Status\Explanation;
use Kybernet\Core\Status\Judge;
use Kybernet\Core\Status\Reference;
use Kybernet\Core\Status\Status;
use Kybernet\Core\Status\Zones;

/**
 * One KPI in one unit on one span: its figures, how they compare, and what they were judged to be.
 */
final readonly class Assessment
{
    /** What it is: a person's call where there is one, otherwise as it was computed. */
    public Status $status;

    public function __construct(
        public LikeForLike $figures,
        public PriorYear $prior,
        /** against the target or the band */
        public ?Variance $variance,
        /** against the same periods a year earlier */
        public ?Variance $change,
        /** against the previous period; only where the span holds one period */
        public ?Variance $step,
        /** what the rules say, whoever called it otherwise */
        public Status $computed,
        public ?Call $call,
        /** what the status is decided on */
        public Evidence $evidence,
        private Measurement $measurement,
    ) {
        $this->status = $call->status ?? $computed;
    }

    /**
     * The sentence that defends the status: rule, reference, deviation and limits, or who called it.
     *
     * @param  bool  $isDated  whether it says since when the limits hold
     */
    public function reason(bool $isDated = true): string
    {
        $computed = Explanation::of($this->evidence, $this->computed, $isDated);
        $missing = $this->missingUnits();

        return ($this->call === null ? $computed : "{$this->call->status->words()}, called: {$this->call->reason} Computed: {$computed}")
            .$this->aim()
            .($missing === [] ? '' : ' Without '.implode(', ', $missing).'.');
    }

    /** Where its target is worked out, by what. */
    private function aim(): string
    {
        $formula = $this->measurement->definition->targetFormula;

        return $formula === null || $this->figures->goal?->from !== TargetFrom::Formula
            ? ''
            : ' The '.($formula->isBand() ? 'band' : 'target')." is worked out: {$formula->words()}.";
    }

    /**
     * Where its green and amber end; null where the status does not follow from a place on the scale: under a year
     * target the year to date is judged, and says nothing about the size of a month or a quarter.
     */
    public function zones(): ?Zones
    {
        if ($this->evidence->rule?->reference === Reference::YearTarget && $this->evidence->periods !== count($this->figures->reported)) {
            return null;
        }

        return Zones::of($this->evidence, $this->evidence->reference ?? $this->figures->goal->band ?? $this->figures->goal?->target);
    }

    /** Whether a green has reached the stretch of its rule set. */
    public function isStretched(): bool
    {
        return Judge::reachesStretch($this->evidence, $this->status);
    }

    /** @return list<string> codes of the units that the figure was gathered without */
    public function missingUnits(): array
    {
        return $this->measurement->actuals instanceof GatheredFigures ? $this->measurement->actuals->missing($this->figures->due) : [];
    }
}
