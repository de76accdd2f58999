<?php

declare(strict_types=1);

namespace Kybernet\Core\Measure;

/**
 * How a KPI that is measured in several units becomes one figure for the unit above them.
 */
enum Gathering: string
{
    case Sum = 'sum';
    case Mean = 'mean';
    /** The mean weighted by another KPI of the same units, such as the number of properties. */
    case Weighted = 'weighted';
    /** The operands of a formula gathered over the units, then the formula: a ratio of sums. */
    case Recompute = 'recompute';
}
