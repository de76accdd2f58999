<?php

declare(strict_types=1);

namespace Kybernet\Core\Workbook;

use Kybernet\Core\Calendar\FinancialYear;
use Kybernet\Core\Calendar\Timeline;
use Kybernet\Core\Measure\Composition;

/**
 * Definitions and figures of an organisation, as they are moved, archived, or assessed without a database.
 */
final readonly class Workbook
{
    /**
     * @param  list<PersonEntry>  $people
     * @param  list<UnitEntry>  $units
     * @param  array<string, string>  $objectives  names by code
     * @param  list<string>  $themes
     * @param  list<KpiEntry>  $kpis
     * @param  array<string, list<string>>  $closings  months that are closed, by code of the unit
     */
    public function __construct(
        public FinancialYear $year,
        public array $people,
        public array $units,
        public array $objectives,
        public array $themes,
        public array $kpis,
        public array $closings = [],
    ) {}

    /** @return iterable<MeasurementEntry> in the workbook's order: KPIs, then their units */
    public function entries(): iterable
    {
        foreach ($this->kpis as $kpi) {
            yield from $kpi->units;
        }
    }

    public function composition(Timeline $timeline): Composition
    {
        $placed = [];
        foreach ($this->kpis as $kpi) {
            foreach ($kpi->units as $entry) {
                $placed[] = $entry->placed;
            }
        }

        return new Composition($placed, array_column($this->units, 'parent', 'code'), $timeline);
    }
}
