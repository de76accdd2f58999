<?php

declare(strict_types=1);

namespace Kybernet\Core\Measure;

/**
 * Where a KPI's figures come from.
 */
enum Kind: string
{
    case Entered = 'entered';
    case Formula = 'formula';
    /** Counted from records. */
    case Records = 'records';
    /** No number: a person gives the colour. */
    case Judged = 'judged';
}
