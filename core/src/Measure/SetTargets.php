<?php

declare(strict_types=1);

namespace Kybernet\Core\Measure;

use Kybernet\Core\Calendar\Period;

/**
 * Targets that people have set: one line of them, or a lower and an upper one for a band.
 */
final readonly class SetTargets implements Targets
{
    private function __construct(public TargetLine $line, public ?TargetLine $upper) {}

    public static function none(): self
    {
        return self::of(TargetLine::of(new Series([])));
    }

    public static function of(TargetLine $line): self
    {
        return new self($line, null);
    }

    public static function band(TargetLine $low, TargetLine $high): self
    {
        return new self($low, $high);
    }

    public function has(Period $period): bool
    {
        return $this->line->has($period) && ($this->upper === null || $this->upper->has($period));
    }

    public function goal(Period $period): ?Goal
    {
        return Goal::of($this->line->figure($period), $this->upper?->figure($period), $this->upper !== null, $this->from([$period]));
    }

    public function gather(array $periods, Accumulation $rule): ?Goal
    {
        return Goal::of($this->line->gather($periods, $rule), $this->upper?->gather($periods, $rule), $this->upper !== null, $this->from($periods));
    }

    /**
     * The figure set for the year, else all its periods' targets gathered. A band has none; it is judged against the
     * year's bands gathered, a total's by their sum and any other's by their mean.
     */
    public function ofYear(Period $year, array $periods, Accumulation $rule): ?Goal
    {
        if ($this->upper === null) {
            return Goal::of($this->line->ofYear($year, $periods, $rule), null, false, TargetFrom::Set);
        }
        $gathered = $rule === Accumulation::Sum ? $rule : Accumulation::Mean;

        return Goal::of($this->line->ofAll($periods, $gathered), $this->upper->ofAll($periods, $gathered), true, TargetFrom::Set);
    }

    /** What is set for a year itself, and is no share of anything. */
    public function forYear(Period $year): ?Goal
    {
        return Goal::of($this->line->forYear($year), $this->upper?->forYear($year), $this->upper !== null, TargetFrom::Set);
    }

    public function whyNone(array $periods): ?string
    {
        return null;
    }

    public function set(): self
    {
        return $this;
    }

    /** @param  list<Period>  $periods */
    private function from(array $periods): TargetFrom
    {
        return $this->line->takesFromYear($periods) || $this->upper?->takesFromYear($periods) === true ? TargetFrom::Year : TargetFrom::Set;
    }
}
