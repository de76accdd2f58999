<?php

declare(strict_types=1);

namespace Kybernet\Core\Records;

use Kybernet\Core\Calendar\Period;

/**
 * What records that are at hand give.
 */
final class PlainCounts implements Counts
{
    /** @var array<int, list<int>>|null places of records by the period in which they are dated; under `open` not used */
    private ?array $byPeriod = null;

    /** @var array<string, Tally> by the keys of the periods */
    private array $tallies = [];

    /** @param  list<int>  $places  of the records of the unit and those below it */
    public function __construct(private readonly Counting $counting, private readonly array $places) {}

    public function in(Period $period): Count
    {
        return $this->together([$period]);
    }

    public function together(array $periods): Count
    {
        return $this->tally($periods)->count($this->counting->counted);
    }

    public function parts(Split $split, array $periods): array
    {
        $tally = $this->tally($periods);
        $at = $this->counting->at($periods[count($periods) - 1]);
        $places = [];
        foreach ($tally->records as $place) {
            $part = $split->of->text === $this->counting->counted->unit ? $this->counting->unitOf($place) : $split->part($split->of->value($this->counting->record($place), $at));
            // An empty field is a part too, and no text is told from one by this.
            $places[$part === null ? '' : "={$part}"][$place] = true;
        }

        return array_map(fn (array $of, string $key): array => [$key === '' ? null : substr($key, 1), $tally->of($of)->count($this->counting->counted)], array_values($places), array_keys($places));
    }

    public function days(): ?array
    {
        $days = array_map($this->counting->begins(...), $this->places);

        return $days === [] ? null : [min($days), max($days)];
    }

    public function reach(): ?array
    {
        return $this->counting->reach();
    }

    /** @param  non-empty-list<Period>  $periods */
    private function tally(array $periods): Tally
    {
        $isOpen = $this->counting->counted->take === Take::Open;
        $last = $periods[count($periods) - 1];
        $key = $isOpen ? $last->key() : implode(' ', array_map(fn (Period $period): string => $period->key(), $periods));

        return $this->tallies[$key] ??= $this->tallied($isOpen ? $this->open($last) : array_merge([], ...array_map($this->dated(...), $periods)), $this->counting->at($last));
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
}
