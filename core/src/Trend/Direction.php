<?php

declare(strict_types=1);

namespace Kybernet\Core\Trend;

/** Which way the line through the last periods goes. */
enum Direction: string
{
    case Rising = 'rising';
    case Falling = 'falling';
    /** no slope that chance would not give */
    case Steady = 'steady';
}
