<?php

declare(strict_types=1);

namespace Kybernet\Core\Measure;

use Kybernet\Core\Calendar\Frequency;
use Kybernet\Core\Calendar\Period;
use Kybernet\Core\Calendar\Tenure;
use Kybernet\Core\Calendar\Timeline;

/**
 * The targets of one KPI in one unit: period by period, and where a period has none of its own, from the figure set
 * for its year: that figure itself, or for a total its even share.
 */
final readonly class TargetLine
{
    /**
     * @param  array<string, Exact>  $fromYear  by period, only those without a target of their own
     * @param  array<string, string>  $years  figures set for whole years, by year
     */
    private function __construct(private Series $own, private array $fromYear, private array $years) {}

    /** @param  array<string, string>  $years  figures set for whole years, of which no period takes a share */
    public static function of(Series $own, array $years = []): self
    {
        return new self($own, [], $years);
    }

    /** @param  array<string, string>  $years  figures set for whole years, by year: `FY2026` */
    public static function planned(
        Series $own,
        array $years,
        Frequency $frequency,
        Accumulation $rule,
        Tenure $tenure,
        Timeline $timeline,
    ): self {
        $fromYear = [];
        foreach ($years as $year => $figure) {
            $periods = $timeline->yearPeriods($frequency, $tenure, Period::parse($year, Frequency::Year));
            $share = $rule === Accumulation::Sum ? Exact::mean(Exact::of($figure), max(1, count($periods))) : Exact::of($figure);
            foreach ($periods as $period) {
                if (! $own->has($period)) {
                    $fromYear[$period->key()] = $share;
                }
            }
        }

        return new self($own, $fromYear, $years);
    }

    public function has(Period $period): bool
    {
        return $this->own->has($period) || isset($this->fromYear[$period->key()]);
    }

    public function figure(Period $period): ?Exact
    {
        return $this->own->figure($period) ?? $this->fromYear[$period->key()] ?? null;
    }

    /**
     * Whether any of the periods has its target from the figure of its year.
     *
     * @param  list<Period>  $periods
     */
    public function takesFromYear(array $periods): bool
    {
        if ($this->fromYear !== []) {
            foreach ($periods as $period) {
                if (isset($this->fromYear[$period->key()])) {
                    return true;
                }
            }
        }

        return false;
    }

    /**
     * The target of the periods together; null when none has one.
     *
     * @param  list<Period>  $periods  those that have no target are passed over
     */
    public function gather(array $periods, Accumulation $rule): ?Exact
    {
        $rule = $rule->ofTargets();
        if (! $this->takesFromYear($periods)) {
            return $rule->gather($this->own, $periods);
        }
        $figures = Exact::known(array_map($this->figure(...), $periods));

        return $figures === [] ? null : $rule->combine($figures);
    }

    /** The figure set for a whole year. */
    public function forYear(Period $year): ?Exact
    {
        return isset($this->years[$year->key()]) ? Exact::of($this->years[$year->key()]) : null;
    }

    /**
     * The target of a whole year: the figure set for it, else all its periods' targets gathered, else null.
     *
     * @param  Period  $year  a financial year
     * @param  list<Period>  $periods  of that year
     */
    public function ofYear(Period $year, array $periods, Accumulation $rule): ?Exact
    {
        return $this->forYear($year) ?? $this->ofAll($periods, $rule);
    }

    /**
     * The targets of all the periods gathered; null when one has none.
     *
     * @param  list<Period>  $periods
     */
    public function ofAll(array $periods, Accumulation $rule): ?Exact
    {
        foreach ($periods as $period) {
            if (! $this->has($period)) {
                return null;
            }
        }

        return $this->gather($periods, $rule);
    }

    public function own(): Series
    {
        return $this->own;
    }

    /** @return array<string, string> figures set for whole years, by year */
    public function years(): array
    {
        return $this->years;
    }
}
