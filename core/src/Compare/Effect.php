<?php

declare(strict_types=1);

namespace Kybernet\Core\Compare;

/**
 * What a difference means for the KPI.
 */
enum Effect: string
{
    case Favourable = 'favourable';
    case Adverse = 'adverse';
    /** No difference, or a KPI that is only tracked. */
    case None = 'none';
}
