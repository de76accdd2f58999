<?php

declare(strict_types=1);

namespace Kybernet\Core\Compare;

use Kybernet\Core\Measure\Exact;
use Kybernet\Core\Status\Polarity;

/** What the units that are worse might reach. */
enum Level: string
{
    case Median = 'median';
    /** Where the best quarter begins. */
    case BestQuarter = 'best-quarter';
    /** Each unit's own. */
    case Target = 'target';

    /** Null for each unit's own. */
    public function among(Peers $peers, Polarity $polarity): ?Exact
    {
        return match ($this) {
            self::Median => $peers->level(50),
            self::BestQuarter => $peers->level($polarity === Polarity::Higher ? 75 : 25),
            self::Target => null,
        };
    }
}
