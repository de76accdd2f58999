<?php

declare(strict_types=1);

namespace Kybernet\Core\Status;

/** Which method a unit’s status follows by. */
enum RollUpRule: string
{
    /** the weighted mean of the scores */
    case Weighted = 'weighted';
    /** the worst status present */
    case Worst = 'worst';
    /** the share of the judged weight */
    case Share = 'share';
}
