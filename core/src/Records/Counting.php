<?php

declare(strict_types=1);

namespace Kybernet\Core\Records;

use Kybernet\Core\Calendar\FinancialYear;
use Kybernet\Core\Calendar\Frequency;
use Kybernet\Core\Calendar\Period;
use Kybernet\Core\Measure\Exact;

/**
 * The records of a set as one KPI counts them: dated, sorted to their units, and met by the conditions. Made once for a
 * KPI, whatever number of units it is measured in.
 *
 * @phpstan-import-type Value from RecordSet
 */
final class Counting
{
    /** @var array<string, list<int>>|null places of records, by the unit that they name; '' holds all where none is asked */
    private ?array $byUnit = null;

    /** @var array<int, array{int, int|null}> local days of when a record counts, and under `open` until when; by place */
    private array $days = [];

    /** @var array{int, int}|null the first day of one and the last of any, of the whole set */
    private ?array $reach = null;

    /** @var array<string, int> */
    private readonly array $units;

    private readonly bool $isDated;

    /** @var array<int, array{bool, Exact|Day|Instant|string|bool|null, bool}> what records give, by place */
    private array $seen = [];

    /** @param  list<string>  $units  codes of the units that there are */
    public function __construct(
        public readonly RecordSet $set,
        public readonly Counted $counted,
        public readonly Zone $zone,
        public readonly FinancialYear $year,
        public readonly Frequency $frequency,
        array $units,
    ) {
        $this->units = array_flip($units);
        $this->isDated = $counted->isDated();
    }

    /** @param  list<string>  $units  the unit and all units below it */
    public function counts(array $units): PlainCounts
    {
        $this->sort();
        $places = $this->counted->unit === null
            ? $this->byUnit[''] ?? []
            : array_merge([], ...array_map(fn (string $unit): array => $this->byUnit[$unit] ?? [], $units));
        sort($places);

        return new PlainCounts($this, $places);
    }

    /** @return array<string, Value> */
    public function record(int $place): array
    {
        return $this->set->records[$place];
    }

    /** The local day on which a record counts, or begins. */
    public function begins(int $place): int
    {
        return $this->days[$place][0] ?? 0;
    }

    /** Whether a record that has begun has not ended by the day. */
    public function isOpen(int $place, int $day): bool
    {
        $until = $this->days[$place][1] ?? null;

        return $until === null || $until > $day;
    }

    /**
     * From the first day on which a record of the set begins to the last day of any.
     *
     * @return array{int, int}|null null where there is no record
     */
    public function reach(): ?array
    {
        $this->sort();

        return $this->reach;
    }

    /** The unit that a record names, by code or by another name; null where it names none that there is. */
    public function unitOf(int $place): ?string
    {
        $named = $this->counted->unit === null ? null : $this->set->records[$place][$this->counted->unit] ?? null;
        if (! is_string($named)) {
            return null;
        }
        // A code goes before another name.
        $code = isset($this->units[$named]) ? $named : $this->set->unitNames[$named] ?? null;

        return $code !== null && isset($this->units[$code]) ? $code : null;
    }

    /**
     * Whether a record meets the conditions, what value it gives, and whether it meets those of a share. Where none of it
     * depends on the period, it is looked at once.
     *
     * @return array{bool, Exact|Day|Instant|string|bool|null, bool}
     */
    public function look(int $place, At $at): array
    {
        return $this->isDated ? $this->seen($place, $at) : $this->seen[$place] ??= $this->seen($place, $at);
    }

    /** @return array{bool, Exact|Day|Instant|string|bool|null, bool} */
    private function seen(int $place, At $at): array
    {
        return $this->meets($place, $this->counted->where, $at)
            ? [true, $this->counted->of?->value($this->set->records[$place], $at), $this->counted->take === Take::Share && $this->meets($place, $this->counted->met, $at)]
            : [false, null, false];
    }

    /** @param  list<Condition>  $conditions  all of which must hold */
    private function meets(int $place, array $conditions, At $at): bool
    {
        foreach ($conditions as $condition) {
            if (! $condition->holds($this->set->records[$place], $at)) {
                return false;
            }
        }

        return true;
    }

    public function at(Period $period): At
    {
        return new At($this->zone, new Day($this->year->days($period)[1]));
    }

    private function sort(): void
    {
        if ($this->byUnit !== null) {
            return;
        }
        $this->byUnit = [];
        [$first, $last] = [PHP_INT_MAX, PHP_INT_MIN];
        foreach ($this->set->records as $place => $record) {
            $begins = $this->day($record[$this->counted->datedBy] ?? null);
            $ends = $this->counted->until === null ? null : $this->day($record[$this->counted->until] ?? null);
            $first = min($first, $begins ?? PHP_INT_MAX);
            $last = max($last, $begins ?? PHP_INT_MIN, $ends ?? PHP_INT_MIN);
            $unit = $this->counted->unit === null ? '' : $this->unitOf($place);
            if ($begins !== null && $unit !== null) {
                $this->days[$place] = [$begins, $ends];
                $this->byUnit[$unit][] = $place;
            }
        }
        $this->reach = $first === PHP_INT_MAX ? null : [$first, $last];
    }

    private function day(mixed $value): ?int
    {
        return match (true) {
            $value instanceof Day => $value->number,
            $value instanceof Instant => $this->zone->dayOf($value)->number,
            default => null,
        };
    }
}
