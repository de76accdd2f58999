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
    /** Tracked, not judged. */
    case None = 'none';

    /** What a difference from a reference means. */
    public function effect(Exact $difference): Effect
    {
        $sign = $this->adverse($difference)->sign();

        return match (true) {
            $this === self::None || $sign === 0 => Effect::None,
            $sign > 0 => Effect::Adverse,
            default => Effect::Favourable,
        };
    }

    /** The difference turned so that adverse is above 0 and favourable below it. */
    public function adverse(Exact $difference): Exact
    {
        return $this === self::Higher ? $difference->negated() : $difference;
    }
}
