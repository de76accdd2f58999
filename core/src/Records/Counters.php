<?php

declare(strict_types=1);

namespace Kybernet\Core\Records;

use Kybernet\Core\Calendar\FinancialYear;
use Kybernet\Core\Calendar\Frequency;

/**
 * The record sets that there are, and what counts them for each KPI, made when it is first asked for.
 */
final class Counters
{
    /** @var array<string, Counting> by KPI */
    private array $made = [];

    /**
     * @param  array<string, RecordSet>  $sets  by code
     * @param  list<string>  $units  codes of the units that there are
     */
    public function __construct(private readonly array $sets, private readonly Zone $zone, private readonly FinancialYear $year, private readonly array $units) {}

    /** @param  string  $kpi  its code */
    public function counting(string $kpi, Counted $counted, Frequency $frequency): Counting
    {
        return $this->made[$kpi] ??= new Counting($this->sets[$counted->records], $counted, $this->zone, $this->year, $frequency, $this->units);
    }
}
