<?php

declare(strict_types=1);

namespace Kybernet\Core\Trend;

/** What a direction means for a KPI of which more, or less, is better. */
enum Meaning: string
{
    case Improving = 'improving';
    case Worsening = 'worsening';
    case Steady = 'steady';
}
