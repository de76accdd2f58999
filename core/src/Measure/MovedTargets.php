<?php

declare(strict_types=1);

namespace Kybernet\Core\Measure;

use Kybernet\Core\Calendar\Period;

/**
 * Targets as they would be, each moved by a share of its absolute value: what somebody tries out.
 */
final readonly class MovedTargets implements Targets
{
    /** @param  Exact  $percent  from −100 to 100 */
    public function __construct(private Targets $targets, private Exact $percent) {}

    public function has(Period $period): bool
    {
        return $this->targets->has($period);
    }

    public function goal(Period $period): ?Goal
    {
        return $this->moved($this->targets->goal($period));
    }

    public function gather(array $periods, Accumulation $rule): ?Goal
    {
        return $this->moved($this->targets->gather($periods, $rule));
    }

    public function ofYear(Period $year, array $periods, Accumulation $rule): ?Goal
    {
        return $this->moved($this->targets->ofYear($year, $periods, $rule));
    }

    public function whyNone(array $periods): ?string
    {
        return $this->targets->whyNone($periods);
    }

    public function set(): SetTargets
    {
        return $this->targets->set();
    }

    private function moved(?Goal $goal): ?Goal
    {
        $move = fn (?Exact $figure): ?Exact => $figure?->plus($figure->abs()->times($this->percent)->dividedBy(Exact::of(100)));

        return $goal === null ? null : Goal::of($move($goal->lower()), $move($goal->band?->high), $goal->band !== null, $goal->from);
    }
}
