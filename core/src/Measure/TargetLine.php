<?php

declare(strict_types=1);

namespace Kybernet\Core\Measure;

use Brick\Math\BigDecimal;
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
     * @param  array<string, Exact>  $derived  by period, those worked out from targets that were set
     */
    private function __construct(private Series $own, private array $fromYear, private array $years, private array $derived = []) {}

    public static function of(Series $own): self
    {
        return new self($own, [], []);
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
            $share = $rule === Accumulation::Sum ? Exact::mean(BigDecimal::of($figure), max(1, count($periods))) : Exact::of($figure);
            foreach ($periods as $period) {
                if (! $own->has($period)) {
                    $fromYear[$period->key()] = $share;
                }
            }
        }

        return new self($own, $fromYear, $years);
    }

    /**
     * @param  array<string, Exact|null>  $targets  by period, worked out from other lines; null where there is none
     * @param  array<string, true>  $fromYear  periods of which any of it comes from a year's figure
     */
    public static function derived(array $targets, array $fromYear): self
    {
        $known = array_filter($targets, fn (?Exact $target): bool => $target !== null);

        return new self(new Series([]), array_intersect_key($known, $fromYear), [], array_diff_key($known, $fromYear));
    }

    /** The same line with other targets of single periods; those that follow from a year's figure stay. */
    public function withOwn(Series $own): self
    {
        return new self($own, $this->fromYear, $this->years);
    }

    public function has(Period $period): bool
    {
        return $this->own->has($period) || isset($this->fromYear[$period->key()]) || isset($this->derived[$period->key()]);
    }

    public function figure(Period $period): ?Exact
    {
        return $this->own->figure($period) ?? $this->fromYear[$period->key()] ?? $this->derived[$period->key()] ?? null;
    }

    /**
     * @param  list<Period>  $periods  those that have no target are passed over
     * @return array{Exact, bool}|null the target of the periods, and whether any of it comes from a year's figure
     */
    public function gather(array $periods, Accumulation $rule): ?array
    {
        $rule = $rule->ofTargets();
        $isFromYear = false;
        if ($this->fromYear !== []) {
            foreach ($periods as $period) {
                $isFromYear = $isFromYear || isset($this->fromYear[$period->key()]);
            }
        }
        if (! $isFromYear && $this->derived === []) {
            $target = $rule->gather($this->own, $periods);
        } else {
            $figures = Exact::known(array_map($this->figure(...), $periods));
            $target = $figures === [] ? null : $rule->combine($figures);
        }

        return $target === null ? null : [$target, $isFromYear];
    }

    /**
     * The target of a whole year: the figure set for it, else all its periods' targets gathered, else null.
     *
     * @param  Period  $year  a financial year
     * @param  list<Period>  $periods  of that year
     */
    public function ofYear(Period $year, array $periods, Accumulation $rule): ?Exact
    {
        if (isset($this->years[$year->key()])) {
            return Exact::of($this->years[$year->key()]);
        }

        return $this->ofAll($periods, $rule);
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

        return $this->gather($periods, $rule)[0] ?? null;
    }

    /** @return list<string> keys of the periods that have a target */
    public function periods(): array
    {
        return [...array_keys($this->own->all()), ...array_keys($this->fromYear), ...array_keys($this->derived)];
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
