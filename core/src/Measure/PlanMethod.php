<?php

declare(strict_types=1);

namespace Kybernet\Core\Measure;

/** What the targets of a year's periods follow. */
enum PlanMethod: string
{
    /** a year figure, the same for each period */
    case Even = 'even';

    /** a year figure, spread as last year's figures were */
    case Shape = 'shape';

    /** a year figure, spread by weights that are typed */
    case Weights = 'weights';

    /** last year's figure of each period, grown by a percentage and an amount */
    case Growth = 'growth';
}
