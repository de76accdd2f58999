<?php

declare(strict_types=1);

namespace Kybernet\Core\Measure;

use Kybernet\Core\Calendar\Period;
use Kybernet\Core\Calendar\Timeline;

/**
 * What several units aim at together, gathered as their figures are: in a period those that have both, a figure and a
 * target, and where none has reported those that have a target. In a year all of them, each in its own time.
 */
final class GatheredTargets implements Targets
{
    /** @var array<string, Goal|null> */
    private array $goals = [];

    /** @param  array<string, Measurement>  $members  the KPI in each unit */
    public function __construct(
        private readonly GatheredFigures $figures,
        private readonly array $members,
        private readonly bool $isSum,
        private readonly Definition $kpi,
        private readonly Timeline $timeline,
    ) {}

    public function has(Period $period): bool
    {
        return $this->goal($period) !== null;
    }

    public function goal(Period $period): ?Goal
    {
        $key = $period->key();

        return array_key_exists($key, $this->goals) ? $this->goals[$key] : $this->goals[$key] = $this->together($period);
    }

    public function gather(array $periods, Accumulation $rule): ?Goal
    {
        return Goal::combine(array_values(array_filter(array_map($this->goal(...), $periods))), $rule->ofTargets());
    }

    public function ofYear(Period $year, array $periods, Accumulation $rule): ?Goal
    {
        $goals = [];
        foreach ($this->members as $member) {
            $inTime = $this->timeline->yearPeriods($this->kpi->frequency, $member->tenure, $year);
            if ($inTime === []) {
                continue;
            }
            $goal = $member->targets->ofYear($year, $inTime, $rule);
            if ($goal === null) {
                return null;
            }
            $goals[] = $goal;
        }

        return Goal::combine($goals, $this->isSum ? Accumulation::Sum : Accumulation::Mean);
    }

    public function whyNone(array $periods): ?string
    {
        return null;
    }

    public function set(): SetTargets
    {
        return SetTargets::none();
    }

    private function together(Period $period): ?Goal
    {
        $goals = [];
        $reporting = array_fill_keys($this->figures->reporting($period), true);
        $isReported = false;
        foreach ($this->members as $unit => $member) {
            $goal = $member->targets->goal($period);
            if ($goal !== null && (isset($reporting[$unit]) || $member->tenure->holds($period, $this->timeline->year))) {
                $goals[$unit] = $goal;
                $isReported = $isReported || isset($reporting[$unit]);
            }
        }
        if ($isReported) {
            $goals = array_intersect_key($goals, $reporting);
        }
        if ($goals === []) {
            return null;
        }
        $lower = array_map(fn (Goal $goal): Exact => $goal->lower(), $goals);
        $upper = array_filter(array_map(fn (Goal $goal): ?Exact => $goal->band?->high, $goals));

        return Goal::of(
            $this->figures->levelled($lower, $period),
            $upper === [] ? null : $this->figures->levelled($upper, $period),
            $upper !== [],
            TargetFrom::together(array_values($goals)),
        );
    }
}
