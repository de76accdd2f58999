<?php

declare(strict_types=1);

namespace Kybernet\Core\Records;

use Brick\Math\BigDecimal;
use Kybernet\Core\Calendar\FinancialYear;
use Kybernet\Core\Calendar\Period;

/**
 * How a KPI is counted from records: which, what is taken of them, how they are dated, and where they belong.
 */
final readonly class Counted
{
    /**
     * @param  string  $records  code of the set
     * @param  Source|null  $of  whose values are taken, where values are
     * @param  BigDecimal|null  $percentile  0 to 100, of a percentile
     * @param  list<Condition>  $met  of a share: all of which those that count for it meet
     * @param  string  $datedBy  a date or time field; under `open` from when
     * @param  string|null  $until  under `open` until when
     * @param  string|null  $unit  the field that says to which unit a record belongs; null for all records in each
     * @param  list<Condition>  $where  all of which must hold
     * @param  Period|null  $from  the month from which it is counted; before it is what was entered
     */
    public function __construct(
        public string $records,
        public Take $take,
        public ?Source $of,
        public ?BigDecimal $percentile,
        public array $met,
        public string $datedBy,
        public ?string $until,
        public ?string $unit,
        public array $where,
        public ?Period $from = null,
    ) {}

    /** Of a median 50. */
    public function percentile(): BigDecimal
    {
        return $this->percentile ?? BigDecimal::of(50);
    }

    /** Whether the period lies before those that are counted. */
    public function beginsAfter(Period $period, FinancialYear $year): bool
    {
        return $this->from !== null && $year->beginMonth($period)->compareTo($this->from) < 0;
    }

    /** @return list<string> the fields that it looks at, calculated ones and those that they are made of */
    public function fields(): array
    {
        $sources = [$this->of, ...array_merge([], ...array_map(fn (Condition $condition): array => array_column($condition->comparisons, 'source'), [...$this->met, ...$this->where]))];
        $names = array_merge([], ...array_map(fn (Source $source): array => $source->fields(), array_values(array_filter($sources))));

        return array_values(array_unique([...$names, ...array_filter([$this->datedBy, $this->until, $this->unit], is_string(...))]));
    }

    /** Whether what is counted of a record depends on the period for which it is looked at. */
    public function isDated(): bool
    {
        return $this->of?->isDated() === true || array_filter([...$this->met, ...$this->where], fn (Condition $condition): bool => $condition->isDated()) !== [];
    }
}
