<?php

declare(strict_types=1);

namespace App\Sources;

use App\Figures\CountedRows;
use App\Figures\MeasurementStore;
use App\Models\Measurement;
use App\Records\RecordSets;
use Kybernet\Core\Calendar\Period;
use Kybernet\Core\Calendar\Span;
use Kybernet\Core\Records\Take;
use Kybernet\Core\Scorecard;

/**
 * Finds what stands behind a figure.
 */
final readonly class BehindFinder
{
    public function __construct(private MeasurementStore $kpis, private RecordSets $sets, private CountedRows $rows, private Scorecard $scorecard) {}

    /** Null where the KPI is not counted from records. */
    public function find(Measurement $measurement, Period $month, Span $span): ?Behind
    {
        $kpi = $this->kpis->one($measurement->id, $month->plus(-12), $this->scorecard->year->months($month)[11]) ?? throw new \LogicException('A measurement that was found is there.');
        $counted = $kpi->measurement->definition->counted;
        $set = $counted === null ? null : $this->sets->byCode($counted->records);
        if ($counted === null || $set === null) {
            return null;
        }
        $figures = $this->scorecard->assess($kpi->measurement, $month, $span)->figures;
        // Of the span those periods that have a figure; where none has, what there is all the same.
        $periods = $figures->reported === [] ? $figures->due : $figures->reported;
        $periods = $periods === [] ? [$this->scorecard->timeline->latest($kpi->measurement->definition->frequency, $month)] : $periods;

        return new Behind(
            $kpi, $counted, $set, $this->rows->zone(), $this->scorecard->year,
            $counted->take === Take::Open ? [$periods[count($periods) - 1]] : $periods,
            $counted->unit === null ? null : $this->rows->names($set->set(), [$kpi->unitId])[$kpi->unitId],
        );
    }
}
