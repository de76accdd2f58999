<?php

declare(strict_types=1);

namespace App\Figures;

/**
 * What is written of a KPI in a unit for a period.
 */
enum Layer: string
{
    case Reading = 'readings';
    case Target = 'targets';
    case Note = 'notes';
}
