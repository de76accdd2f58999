<?php

declare(strict_types=1);

namespace Kybernet\Core\Workbook;

use Brick\Math\BigDecimal;
use Kybernet\Core\Measure\KeptMeasurement;
use Kybernet\Core\Measure\Series;

/**
 * A KPI in one of its units.
 */
final readonly class MeasurementEntry
{
    /**
     * @param  int|null  $position  among the KPIs of the unit; null for the workbook's order
     * @param  string|null  $owner  e-mail address of who enters the figures
     * @param  array<string, NoteEntry>  $notes  by period
     * @param  array<string, true>  $submitted  readings that their owners have handed in, by period
     * @param  array<string, string>  $asOf  the day up to which a reading counts whose period was not over, by period
     * @param  list<ActionEntry>  $actions
     * @param  array<string, Series>  $parts  figures of typed parts, by part
     */
    public function __construct(
        public KeptMeasurement $placed,
        public BigDecimal $weight,
        public ?int $position,
        public ?string $owner,
        public array $notes,
        public array $submitted = [],
        public array $asOf = [],
        public array $actions = [],
        public array $parts = [],
    ) {}
}
