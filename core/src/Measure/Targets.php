<?php

declare(strict_types=1);

namespace Kybernet\Core\Measure;

use Kybernet\Core\Calendar\Period;

/**
 * What a KPI aims at in a unit, wherever it comes from: set by people, worked out by a formula, or gathered over units.
 */
interface Targets
{
    public function has(Period $period): bool;

    /** What a single period aims at. */
    public function goal(Period $period): ?Goal;

    /**
     * What periods aim at together; null when there is nothing.
     *
     * @param  list<Period>  $periods  those that have no target are passed over
     */
    public function gather(array $periods, Accumulation $rule): ?Goal;

    /**
     * What a whole year aims at; null unless a figure is set for it or all its periods have a target.
     *
     * @param  Period  $year  a financial year
     * @param  list<Period>  $periods  of that year
     */
    public function ofYear(Period $year, array $periods, Accumulation $rule): ?Goal;

    /**
     * Why the periods aim at nothing, in words; null where none was set.
     *
     * @param  non-empty-list<Period>  $periods
     */
    public function whyNone(array $periods): ?string;

    /** What people have set; nothing where it is gathered over units. */
    public function set(): SetTargets;
}
