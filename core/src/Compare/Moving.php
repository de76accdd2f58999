<?php

declare(strict_types=1);

namespace Kybernet\Core\Compare;

/** Whether two KPIs have moved together. */
enum Moving: string
{
    case Together = 'together';
    case Against = 'against';
    case Apart = 'apart';

    /** Below this either way it says next to nothing (common practice). */
    private const WEAK = 0.3;

    /** @param  float  $correlation  −1 to 1 */
    public static function of(float $correlation): self
    {
        return match (true) {
            abs($correlation) < self::WEAK => self::Apart,
            $correlation > 0 => self::Together,
            default => self::Against,
        };
    }
}
