<?php

declare(strict_types=1);

namespace Kybernet\Core\Compare;

/** What the units that are worse might reach. */
enum Level: string
{
    case Median = 'median';
    /** Where the best quarter begins. */
    case BestQuarter = 'best-quarter';
    /** Each unit's own. */
    case Target = 'target';
}
