<?php

declare(strict_types=1);

namespace App\Figures;

use Closure;
use Kybernet\Core\Calendar\FinancialYear;
use Kybernet\Core\Calendar\Frequency;
use Kybernet\Core\Calendar\Period;
use Kybernet\Core\Records\Count;
use Kybernet\Core\Records\Counts;
use Kybernet\Core\Records\Split;
use Kybernet\Core\Records\Take;

/**
 * What was counted of the records when they came in, and is kept beside the readings.
 */
final readonly class KeptCounts implements Counts
{
    /**
     * @param  array<string, Count>  $counts  by period; those that are not there are nought
     * @param  array<string, list<Count>>  $longer  of longer spans, by the period that they end with
     * @param  array<string, mixed>  $late  periods that stay as they were when they were closed
     * @param  array{int, int}|null  $reach
     * @param  Closure(non-empty-list<Period>): Count  $again  takes periods again from the records themselves
     * @param  Closure(Split, non-empty-list<Period>): list<array{string|null, Count}>  $parts
     */
    public function __construct(
        private Take $take,
        private FinancialYear $year,
        private Frequency $frequency,
        private array $counts,
        private array $longer,
        private array $late,
        private ?array $reach,
        private Closure $again,
        private Closure $parts,
    ) {}

    public function in(Period $period): Count
    {
        return $this->counts[$period->key()] ?? new Count;
    }

    public function together(array $periods): ?Count
    {
        $counts = array_map($this->in(...), $periods);
        $together = Count::together($this->take, $counts);
        if ($together !== null) {
            return $together;
        }
        // A longer span is kept where it holds the very records of these periods.
        $records = array_sum(array_column($counts, 'records'));
        foreach ($this->longer[$periods[count($periods) - 1]->key()] ?? [] as $count) {
            if ($count->records === $records) {
                return $count;
            }
        }

        return array_filter($periods, fn (Period $period): bool => isset($this->late[$period->key()])) === [] ? ($this->again)($periods) : null;
    }

    public function parts(Split $split, array $periods): array
    {
        return ($this->parts)($split, $periods);
    }

    public function days(): ?array
    {
        if ($this->counts === []) {
            return null;
        }
        $keys = array_keys($this->counts);

        return [$this->year->days(Period::parse(min($keys), $this->frequency))[0], $this->year->days(Period::parse(max($keys), $this->frequency))[1]];
    }

    public function reach(): ?array
    {
        return $this->reach;
    }
}
