<?php

declare(strict_types=1);

namespace App\Briefings;

/**
 * What a new briefing begins with.
 */
enum Beginning: string
{
    case Organisation = 'organisation';
    case Department = 'department';
    case Weekly = 'weekly';
    case OneKpi = 'one-kpi';
    case MonthEnd = 'month-end';
    case Nothing = 'nothing';
}
