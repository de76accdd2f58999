<?php

declare(strict_types=1);

namespace Kybernet\Core\Records;

use Kybernet\Core\Measure\Accumulation;
use Kybernet\Core\Measure\Exact;

/**
 * How many records count, and what is taken of them: all that is needed to make a figure, or the figure of several
 * periods together where their figures can be put together.
 */
final readonly class Count
{
    /**
     * @param  int<0, max>  $records  that count: of the unit, dated in the periods, meeting the conditions, with a value
     * @param  int<0, max>  $empty  that meet the conditions and have no value
     * @param  int<0, max>  $met  of those that count, how many meet the conditions of a share
     * @param  Exact|null  $taken  of the values: under `mean` their sum, otherwise as named; null where nothing is taken
     */
    public function __construct(public int $records = 0, public int $empty = 0, public int $met = 0, public ?Exact $taken = null) {}

    /** Null where nothing can be taken of none. */
    public function figure(Take $take): ?Exact
    {
        return match ($take) {
            Take::Count, Take::Open => Exact::of($this->records),
            Take::Share => $this->records === 0 ? null : Exact::of($this->met)->times(100)->dividedBy(Exact::of($this->records)),
            Take::Sum, Take::Distinct => $this->taken ?? Exact::of(0),
            Take::Mean => $this->taken === null || $this->records === 0 ? null : Exact::mean($this->taken, $this->records),
            default => $this->taken,
        };
    }

    public function isSame(self $other): bool
    {
        return [$this->records, $this->empty, $this->met, $this->taken === null] === [$other->records, $other->empty, $other->met, $other->taken === null]
            && ($this->taken === null || $other->taken === null || $this->taken->compareTo($other->taken) === 0);
    }

    /**
     * What periods give together; null where it is known from the records alone.
     *
     * @param  non-empty-list<self>  $counts  earliest first
     */
    public static function together(Take $take, array $counts): ?self
    {
        if ($take === Take::Open) {
            return $counts[count($counts) - 1];
        }
        if (! $take->isTakenOfParts()) {
            return count($counts) === 1 ? $counts[0] : null;
        }
        $taken = Exact::known(array_column($counts, 'taken'));

        return new self(
            array_sum(array_column($counts, 'records')),
            array_sum(array_column($counts, 'empty')),
            array_sum(array_column($counts, 'met')),
            $taken === [] ? null : match ($take) {
                Take::Minimum => Accumulation::Minimum->combine($taken),
                Take::Maximum => Accumulation::Maximum->combine($taken),
                default => Accumulation::Sum->combine($taken),
            },
        );
    }
}
