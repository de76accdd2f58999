<?php

declare(strict_types=1);

namespace Kybernet\Core\Records;

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
    /** @var array<int, list<int>>|null places of records by the period in which they are dated; under `open` not used */
    private ?array $byPeriod = null;

    /** @var array<string, Tally> by the keys of the periods */
    private array $tallies = [];

    /** @var array<string, array{Exact|null, Absence}> by period */
    private array $counts = [];

    private string|false|null $earliest = false;

    /**
     * @param  list<int>  $places  of the records of the unit and those below it
     * @param  Series  $byHand  figures that stand over the counted ones
     */
    public function __construct(public readonly Counting $counting, private readonly array $places, private readonly Series $byHand) {}

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
        if (! $isByHand && $rule === $this->counting->counted->take->accumulation()) {
            return $this->again($periods);
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

    /** The figure as it is counted, whatever stands over it. */
    public function counted(Period $period): ?Exact
    {
        return $this->count($period)[0];
    }

    /**
     * The records that count in the periods; under `open` at the end of the last of them.
     *
     * @param  non-empty-list<Period>  $periods
     */
    public function tally(array $periods): Tally
    {
        $isOpen = $this->counting->counted->take === Take::Open;
        $last = $periods[count($periods) - 1];
        $key = $isOpen ? $last->key() : implode(' ', array_map(fn (Period $period): string => $period->key(), $periods));

        return $this->tallies[$key] ??= $this->tallied($isOpen ? $this->open($last) : array_merge([], ...array_map($this->dated(...), $periods)), $this->counting->at($last));
    }

    /** @param  non-empty-list<Period>  $periods  all of them with a counted figure */
    private function again(array $periods): ?Exact
    {
        return count($periods) === 1 ? $this->count($periods[0])[0] : $this->tally($periods)->figure($this->counting->counted);
    }

    /** @return array{Exact|null, Absence} the figure, and what its absence means where it is null */
    private function count(Period $period): array
    {
        return $this->counts[$period->key()] ??= $this->counting->counted->take === Take::Open ? $this->countOpen($period) : $this->countDated($period);
    }

    /** @return array{Exact|null, Absence} */
    private function countDated(Period $period): array
    {
        [$first, $last] = array_map(fn (int $day): Day => new Day($day), $this->counting->year->days($period));
        $coverage = $this->counting->set->coverage;
        if ($coverage->isAfter($first)) {
            return [null, Absence::Unknown];
        }
        $tally = $this->tally([$period]);
        if ($tally->records !== []) {
            return [$tally->figure($this->counting->counted), Absence::Missing];
        }
        $isNought = $this->counting->counted->take->isNoughtWithout();

        return match (true) {
            ! $coverage->holds($first, $last) => [null, Absence::Missing],
            $isNought && $tally->empty === 0 => [Exact::of(0), Absence::Missing],
            default => [null, $isNought ? Absence::Missing : Absence::Nothing],
        };
    }

    /** @return array{Exact|null, Absence} */
    private function countOpen(Period $period): array
    {
        [$first, $last] = array_map(fn (int $day): Day => new Day($day), $this->counting->year->days($period));
        $coverage = $this->counting->set->coverage;
        $reach = $this->counting->reach();
        $isKnown = $coverage->isKnown()
            ? $coverage->holds($last, $last)
            // From the period of the first record to that of the latest date.
            : $reach !== null && $last->number >= $reach[0] && $first->number <= $reach[1];

        return $isKnown
            ? [$this->tally([$period])->figure($this->counting->counted), Absence::Missing]
            : [null, $coverage->isAfter($first) ? Absence::Unknown : Absence::Missing];
    }

    /** @return list<int> places of the records that are dated in the period */
    private function dated(Period $period): array
    {
        if ($this->byPeriod === null) {
            $this->byPeriod = [];
            foreach ($this->places as $place) {
                $this->byPeriod[$this->counting->year->holding($period->frequency, $this->counting->begins($place))->ordinal][] = $place;
            }
        }

        return $this->byPeriod[$period->ordinal] ?? [];
    }

    /** @return list<int> places of the records that have begun by the period's last day, and not ended */
    private function open(Period $period): array
    {
        $last = $this->counting->year->days($period)[1];

        return array_values(array_filter($this->places, fn (int $place): bool => $this->counting->begins($place) <= $last && $this->counting->isOpen($place, $last)));
    }

    /** @param  list<int>  $places */
    private function tallied(array $places, At $at): Tally
    {
        $isOfValues = $this->counting->counted->take->isOfValues();
        [$records, $values, $met, $empty] = [[], [], [], 0];
        foreach ($places as $place) {
            [$counts, $value, $meets] = $this->counting->look($place, $at);
            if (! $counts) {
                continue;
            }
            if ($isOfValues) {
                if ($value === null) {
                    $empty++;

                    continue;
                }
                $values[] = $value;
            }
            $records[] = $place;
            if ($meets) {
                $met[] = $place;
            }
        }

        return new Tally($records, $values, $met, $empty);
    }

    private function earliestCount(): ?Period
    {
        $days = array_map($this->counting->begins(...), $this->places);
        $coverage = $this->counting->set->coverage;
        $reach = $this->counting->reach();
        $from = array_filter([$days === [] ? null : min($days), $coverage->isKnown() ? $coverage->from?->number : null, $this->counting->counted->take === Take::Open ? $reach[0] ?? null : null], is_int(...));
        $to = array_filter([$days === [] ? null : max($days), $coverage->isKnown() ? $coverage->to?->number : null, $reach[1] ?? null], is_int(...));
        if ($from === [] || $to === []) {
            return null;
        }
        $frequency = $this->counting->frequency;
        foreach ($this->counting->year->holding($frequency, min($from))->to($this->counting->year->holding($frequency, max($to))) as $period) {
            if ($this->count($period)[0] !== null) {
                return $period;
            }
        }

        return null;
    }
}
