<?php

declare(strict_types=1);

namespace Kybernet\Core\Measure;

use Kybernet\Core\Calendar\Period;

/**
 * Where the actuals of a KPI come from: entered, worked out by a formula, or gathered over units.
 */
interface Figures
{
    /** Whether the period counts as reported. */
    public function has(Period $period): bool;

    /** What it means that the period does not count as reported; asked of such a period alone. */
    public function absence(Period $period): Absence;

    /** The figure of one period; null when it is not reported, or gives no value. */
    public function figure(Period $period): ?Exact;

    /** The figure of one period for statistics, which are made on floats. */
    public function float(Period $period): ?float;

    /**
     * The figure of several periods together; null when there is none to gather, or it gives no value.
     *
     * @param  list<Period>  $periods  all of them reported, earliest first
     */
    public function gather(array $periods, Accumulation $rule): ?Exact;

    /**
     * Why periods give no figure, in words; null when all is simply there, or simply not reported.
     *
     * @param  list<Period>  $periods
     */
    public function whyNone(array $periods): ?string;

    /** The key of the earliest period with a figure; keys of one frequency sort by time. */
    public function earliest(): ?string;
}
