<?php

declare(strict_types=1);

namespace Kybernet\Core\Records;

use Kybernet\Core\Calendar\FinancialYear;
use Kybernet\Core\Measure\KeptMeasurement;

/**
 * Counts from record sets whose records are at hand.
 */
final class PlainCounters implements Counters
{
    /** @var array<string, Counting> by KPI */
    private array $made = [];

    /**
     * @param  array<string, RecordSet>  $sets  by code
     * @param  list<string>  $units  codes of the units that there are
     */
    public function __construct(private readonly array $sets, private readonly Zone $zone, private readonly FinancialYear $year, private readonly array $units) {}

    public function figures(KeptMeasurement $placed, array $units): RecordFigures
    {
        $counted = $placed->definition->counted ?? throw new \LogicException('What is counted says how.');
        $counting = $this->made[$placed->kpi] ??= new Counting($this->sets[$counted->records], $counted, $this->zone, $this->year, $placed->definition->frequency, $this->units);

        return new RecordFigures($counted, $counting->set->coverage, $this->year, $placed->definition->frequency, $counting->counts($units), $placed->readings);
    }
}
