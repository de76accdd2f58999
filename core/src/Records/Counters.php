<?php

declare(strict_types=1);

namespace Kybernet\Core\Records;

use Kybernet\Core\Measure\KeptMeasurement;

/**
 * Makes the figures of KPIs that are counted from records.
 */
interface Counters
{
    /**
     * @param  KeptMeasurement  $placed  one that is counted
     * @param  list<string>  $units  codes of its unit and of all units below
     */
    public function figures(KeptMeasurement $placed, array $units): RecordFigures;
}
