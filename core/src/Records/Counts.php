<?php

declare(strict_types=1);

namespace Kybernet\Core\Records;

use Kybernet\Core\Calendar\Period;

/**
 * What the records of one unit, and of those below it, give for a KPI.
 */
interface Counts
{
    /**
     * Of the periods together; under `open` at the end of the last of them.
     *
     * @param  non-empty-list<Period>  $periods  earliest first
     */
    public function of(array $periods): Count;

    /**
     * The same for each part of a split.
     *
     * @param  non-empty-list<Period>  $periods  earliest first
     * @return list<array{string|null, Count}> parts with records, in any order; null is the empty one
     */
    public function parts(Split $split, array $periods): array;

    /**
     * From the first local day on which a record of the unit counts, or begins, to the last.
     *
     * @return array{int, int}|null null where there is none
     */
    public function days(): ?array;

    /**
     * From the first day on which a record of the whole set begins to the last day of any.
     *
     * @return array{int, int}|null null where there is none
     */
    public function reach(): ?array;
}
