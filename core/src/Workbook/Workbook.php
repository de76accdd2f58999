<?php

declare(strict_types=1);

namespace Kybernet\Core\Workbook;

use Kybernet\Core\Calendar\FinancialYear;
use Kybernet\Core\Calendar\Timeline;
use Kybernet\Core\Measure\Composition;
use Kybernet\Core\Records\Counters;
use Kybernet\Core\Records\PlainCounters;
use Kybernet\Core\Records\Zone;

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
     * @param  list<RecordSetEntry>  $recordSets
     * @param  string  $timeZone  the IANA name of the zone by whose clock days begin and end
     * @param  Counters|null  $counters  what counts from records, where these are not at hand
     */
    public function __construct(
        public FinancialYear $year,
        public array $people,
        public array $units,
        public array $objectives,
        public array $themes,
        public array $kpis,
        public array $closings = [],
        public array $recordSets = [],
        public string $timeZone = 'UTC',
        private ?Counters $counters = null,
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

        $sets = array_column(array_map(fn (RecordSetEntry $entry): array => [$entry->set->code, $entry->set], $this->recordSets), 1, 0);

        return new Composition($placed, array_column($this->units, 'parent', 'code'), $timeline, $this->counters ?? new PlainCounters($sets, new Zone($this->timeZone), $this->year, array_column($this->units, 'code')));
    }
}
