<?php

declare(strict_types=1);

namespace Kybernet\Core\Records;

use Kybernet\Core\Measure\Exact;

/**
 * The records that a KPI counts in some periods, and what they give.
 */
final readonly class Tally
{
    /**
     * @param  list<int>  $records  places of those that count: of the unit, dated in the periods, meeting the conditions, with a value
     * @param  list<Exact|Day|Instant|string|bool>  $values  theirs, where values are taken
     * @param  list<int>  $met  places of those that meet the conditions of a share
     * @param  int<0, max>  $empty  how many meet the conditions and have no value
     */
    public function __construct(public array $records, public array $values, public array $met, public int $empty) {}

    public function count(Counted $counted): Count
    {
        return new Count(count($this->records), $this->empty, count($this->met), Taking::of($counted, $this->values));
    }

    /**
     * The same of some of its records.
     *
     * @param  array<int, true>  $places
     */
    public function of(array $places): self
    {
        $kept = array_filter($this->records, fn (int $place): bool => isset($places[$place]));

        return new self(
            array_values($kept),
            array_values(array_intersect_key($this->values, $kept)),
            array_values(array_filter($this->met, fn (int $place): bool => isset($places[$place]))),
            0,
        );
    }
}
