<?php

declare(strict_types=1);

namespace App\Figures;

use Kybernet\Core\Measure\KeptMeasurement;
use Kybernet\Core\Records\Counters;
use Kybernet\Core\Records\RecordFigures;

/**
 * Figures of KPIs that are counted from records, as they are kept.
 */
final readonly class KeptCounters implements Counters
{
    /** @param  array<string, array<string, \Closure(KeptMeasurement): RecordFigures>>  $made  by KPI and unit */
    public function __construct(private array $made) {}

    public function figures(KeptMeasurement $placed, array $units): RecordFigures
    {
        return $this->made[$placed->kpi][$placed->unit]($placed);
    }
}
