<?php

declare(strict_types=1);

namespace Kybernet\Core\Status;

use Kybernet\Core\Compare\Effect;
use Kybernet\Core\Measure\Exact;

/**
 * Which way a KPI is better.
 */
enum Polarity: string
{
    case Higher = 'higher';
    case Lower = 'lower';
    /** Between a lower and an upper target. */
    case Band = 'band';
    /** Tracked, not judged. */
    case None = 'none';

    /** What a difference from a single figure means. A band has no better direction: it is told by its distances. */
    public function effect(Exact $difference): Effect
    {
        return match ($this) {
            self::Higher, self::Lower => Effect::ofAdverse($this->adverse($difference)),
            self::Band, self::None => Effect::None,
        };
    }

    /** The difference turned so that adverse is above 0 and favourable below it. */
    public function adverse(Exact $difference): Exact
    {
        return $this === self::Higher ? $difference->negated() : $difference;
    }
}
