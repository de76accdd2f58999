<?php

declare(strict_types=1);

namespace Kybernet\Core\Records;

use Kybernet\Core\Calendar\Period;

/**
 * What the records of one unit, and of those below it, give for a KPI.
 */
interface Counts
{
    /** Of one period; under `open` at its end. */
    public function in(Period $period): Count;

    /**
     * Of several periods taken again over all their records; under `open` at the end of the last of them.
     *
     * @param  non-empty-list<Period>  $periods  earliest first
     * @return Count|null null where they cannot be taken again: one of them stays as it was when it was closed
     */
    public function together(array $periods): ?Count;

    /**
     * Of the records of several periods, in parts.
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
