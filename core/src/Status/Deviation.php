<?php

declare(strict_types=1);

namespace Kybernet\Core\Status;

/**
 * The measure of a rule set: in what the distance from the reference is told, and so what its limits mean.
 */
enum Deviation: string
{
    /** Adverse deviation in % of the reference's absolute value; limits are upper bounds of it. */
    case Percent = 'percent';
    /** Adverse deviation in the KPI's own measure, for one period; limits are upper bounds of it. */
    case Absolute = 'absolute';
    /** How much of the reference is reached, in %; limits are lower bounds of it. */
    case Reached = 'reached';
    /** No deviation: the limits are levels that the actual must be at or better than. */
    case Level = 'level';
}
