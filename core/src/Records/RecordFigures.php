<?php

declare(strict_types=1);

namespace Kybernet\Core\Records;

use Brick\Math\BigDecimal;
use Kybernet\Core\Calendar\FinancialYear;
use Kybernet\Core\Calendar\Frequency;
use Kybernet\Core\Calendar\Period;
use Kybernet\Core\Measure\Absence;
use Kybernet\Core\Measure\Accumulation;
use Kybernet\Core\Measure\Exact;
use Kybernet\Core\Measure\Figures;
use Kybernet\Core\Measure\Series;

/**
 * The actuals of a KPI that are counted from records of one unit and those below it. A longer span is taken again over
 * the records of its periods; one that holds a figure by hand is gathered from the figures of its periods.
 */
final class RecordFigures implements Figures
{
    /** @var array<string, array{Exact|null, Absence}> by period */
    private array $found = [];

    private string|false|null $earliest = false;

    /** @param  Series  $byHand  figures that stand over the counted ones */
    public function __construct(
        public readonly Counted $definition,
        private readonly Coverage $coverage,
        private readonly FinancialYear $year,
        public readonly Frequency $frequency,
        public readonly Counts $counts,
        public readonly Series $byHand,
    ) {}

    public function has(Period $period): bool
    {
        return $this->byHand->has($period) || $this->count($period)[0] !== null;
    }

    public function figure(Period $period): ?Exact
    {
        return $this->byHand->figure($period) ?? $this->count($period)[0];
    }

    public function float(Period $period): ?float
    {
        return $this->figure($period)?->toFloat();
    }

    public function gather(array $periods, Accumulation $rule): ?Exact
    {
        if ($periods === []) {
            return null;
        }
        $isByHand = array_filter($periods, $this->byHand->has(...)) !== [];
        if (! $isByHand && $rule === $this->definition->take->accumulation()) {
            $count = count($periods) === 1 ? null : $this->counts->together($periods);
            if ($count !== null) {
                return $count->figure($this->definition->take);
            }
        }
        $figures = Exact::known(array_map($this->figure(...), $periods));

        return $figures === [] ? null : $rule->combine($figures);
    }

    public function absence(Period $period): Absence
    {
        return $this->count($period)[1];
    }

    public function whyNone(array $periods): ?string
    {
        foreach ($periods as $period) {
            if (! $this->has($period)) {
                return match ($this->absence($period)) {
                    Absence::Nothing => "no record counts in {$period->words()}",
                    Absence::Unknown => "the records begin after {$period->words()}",
                    Absence::Missing => null,
                };
            }
        }

        return null;
    }

    public function earliest(): ?string
    {
        if ($this->earliest === false) {
            $keys = array_filter([$this->byHand->earliest(), $this->earliestCount()?->key()], is_string(...));
            $this->earliest = $keys === [] ? null : min($keys);
        }

        return $this->earliest;
    }

    /** The same with one period's figure by hand, or without it when null. */
    public function with(Period $period, ?BigDecimal $figure): self
    {
        return new self($this->definition, $this->coverage, $this->year, $this->frequency, $this->counts, $this->byHand->with($period, $figure));
    }

    /** The figure as it is counted, whatever stands over it. */
    public function counted(Period $period): ?Exact
    {
        return $this->count($period)[0];
    }

    /** @return array{Exact|null, Absence} the figure, and what its absence means where it is null */
    private function count(Period $period): array
    {
        return $this->found[$period->key()] ??= $this->definition->take === Take::Open ? $this->countOpen($period) : $this->countDated($period);
    }

    /** @return array{Exact|null, Absence} */
    private function countDated(Period $period): array
    {
        [$first, $last] = array_map(fn (int $day): Day => new Day($day), $this->year->days($period));
        if ($this->coverage->isAfter($first) || $this->definition->beginsAfter($period, $this->year)) {
            return [null, Absence::Unknown];
        }
        $count = $this->counts->in($period);
        if ($count->records > 0) {
            return [$count->figure($this->definition->take), Absence::Missing];
        }
        $isNought = $this->definition->take->isNoughtWithout();

        return match (true) {
            ! $this->coverage->holds($first, $last) => [null, Absence::Missing],
            $isNought && $count->empty === 0 => [Exact::of(0), Absence::Missing],
            default => [null, $isNought ? Absence::Missing : Absence::Nothing],
        };
    }

    /** @return array{Exact|null, Absence} */
    private function countOpen(Period $period): array
    {
        [$first, $last] = array_map(fn (int $day): Day => new Day($day), $this->year->days($period));
        $reach = $this->counts->reach();
        if ($this->definition->beginsAfter($period, $this->year)) {
            return [null, Absence::Unknown];
        }
        $isKnown = $this->coverage->isKnown()
            ? $this->coverage->holds($last, $last)
            // From the period of the first record to that of the latest date.
            : $reach !== null && $last->number >= $reach[0] && $first->number <= $reach[1];

        return $isKnown
            ? [$this->counts->in($period)->figure($this->definition->take), Absence::Missing]
            : [null, $this->coverage->isAfter($first) ? Absence::Unknown : Absence::Missing];
    }

    private function earliestCount(): ?Period
    {
        $days = $this->counts->days();
        $reach = $this->counts->reach();
        $from = array_filter([$days[0] ?? null, $this->coverage->isKnown() ? $this->coverage->from?->number : null, $this->definition->take === Take::Open ? $reach[0] ?? null : null], is_int(...));
        $to = array_filter([$days[1] ?? null, $this->coverage->isKnown() ? $this->coverage->to?->number : null, $reach[1] ?? null], is_int(...));
        if ($from === [] || $to === []) {
            return null;
        }
        foreach ($this->year->holding($this->frequency, min($from))->to($this->year->holding($this->frequency, max($to))) as $period) {
            if ($this->count($period)[0] !== null) {
                return $period;
            }
        }

        return null;
    }
}
