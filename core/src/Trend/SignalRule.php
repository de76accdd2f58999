<?php

declare(strict_types=1);

namespace Kybernet\Core\Trend;

/** What chance alone seldom does. */
enum SignalRule: string
{
    case OutsideLimits = 'outside-limits';
    /** 8 in a row on one side of the usual level */
    case OneSide = 'one-side';
    /** 6 in a row rising, or falling */
    case SteadyRun = 'steady-run';
    /** 2 of 3 beyond two thirds of the way to a limit */
    case TwoOfThree = 'two-of-three';
}
