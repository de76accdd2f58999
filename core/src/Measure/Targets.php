<?php

declare(strict_types=1);

namespace Kybernet\Core\Measure;

use Kybernet\Core\Calendar\Period;

/**
 * What a KPI aims at in a unit: one line of targets, or a lower and an upper one for a band.
 */
final readonly class Targets
{
    /** @param  (\Closure(Period): (Goal|null))|null  $years  what a year aims at, where its periods do not say it */
    private function __construct(public TargetLine $line, public ?TargetLine $upper, private ?\Closure $years = null) {}

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

    /** @param  \Closure(Period): (Goal|null)  $years  what all the units aim at in a year */
    public static function gathered(TargetLine $line, ?TargetLine $upper, \Closure $years): self
    {
        return new self($line, $upper, $years);
    }

    public function has(Period $period): bool
    {
        return $this->line->has($period) && ($this->upper === null || $this->upper->has($period));
    }

    /** @param  list<Period>  $periods  those that have no target are passed over */
    public function gather(array $periods, Accumulation $rule): ?Goal
    {
        $line = $this->line->gather($periods, $rule);
        if ($this->upper === null) {
            return $line === null ? null : new Goal($line[0], null, $line[1]);
        }
        $upper = $this->upper->gather($periods, $rule);

        return $line === null || $upper === null ? null : new Goal(null, new Band($line[0], $upper[0]), $line[1] || $upper[1]);
    }

    /**
     * The year target: the figure set for the year, else all its periods' targets gathered. A band has none; it is
     * judged against the year's bands gathered, a total's by their sum and any other's by their mean.
     *
     * @param  Period  $year  a financial year
     * @param  list<Period>  $periods  of that year
     */
    public function ofYear(Period $year, array $periods, Accumulation $rule): ?Goal
    {
        if ($this->years !== null) {
            return ($this->years)($year);
        }
        if ($this->upper === null) {
            $target = $this->line->ofYear($year, $periods, $rule);

            return $target === null ? null : new Goal($target, null, false);
        }
        $gathered = $rule === Accumulation::Sum ? $rule : Accumulation::Mean;
        $low = $this->line->ofAll($periods, $gathered);
        $high = $this->upper->ofAll($periods, $gathered);

        return $low === null || $high === null ? null : new Goal(null, new Band($low, $high), false);
    }
}
