<?php

declare(strict_types=1);

namespace App\Sources;

use App\Figures\MeasurementFacts;
use App\Records\KeptSet;
use App\Records\RecordQuery;
use Kybernet\Core\Calendar\FinancialYear;
use Kybernet\Core\Calendar\Period;
use Kybernet\Core\Records\Counted;
use Kybernet\Core\Records\Zone;

/**
 * A counted figure, and where its records are.
 */
final readonly class Behind
{
    /**
     * @param  non-empty-list<Period>  $periods  of the span
     * @param  list<string>|null  $names  of the units whose records count; null for all
     */
    public function __construct(
        public MeasurementFacts $kpi,
        public Counted $counted,
        public KeptSet $set,
        public Zone $zone,
        public FinancialYear $year,
        public array $periods,
        public ?array $names,
    ) {}

    /** @param  Counted|null  $counted  as it is tried out */
    public function query(?Counted $counted = null): RecordQuery
    {
        return new RecordQuery($this->set->set(), $counted ?? $this->counted, $this->set->table, $this->zone, [array_map($this->year->days(...), $this->periods)], $this->names === null ? null : [1 => $this->names]);
    }
}
