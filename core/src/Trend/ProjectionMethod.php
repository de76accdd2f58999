<?php

declare(strict_types=1);

namespace Kybernet\Core\Trend;

/** How the year end is projected. */
enum ProjectionMethod: string
{
    /** by last year’s shape */
    case Seasonal = 'seasonal';
    /** by what is reported so far */
    case RunRate = 'run-rate';
    /** along the trend of the last periods */
    case TrendLine = 'trend-line';
    /** the latest figure stays */
    case LastValue = 'last-value';
    /** the extreme so far stays */
    case SoFar = 'so-far';
    /** worked out from the projections of the operands */
    case Operands = 'operands';
}
