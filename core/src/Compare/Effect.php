<?php

declare(strict_types=1);

namespace Kybernet\Core\Compare;

use Kybernet\Core\Measure\Exact;

/**
 * What a difference means for the KPI.
 */
enum Effect: string
{
    case Favourable = 'favourable';
    case Adverse = 'adverse';
    /** No difference, or a KPI that is only tracked. */
    case None = 'none';

    /** @param  Exact  $difference  turned so that adverse is above 0 */
    public static function ofAdverse(Exact $difference): self
    {
        return match ($difference->sign()) {
            1 => self::Adverse,
            -1 => self::Favourable,
            default => self::None,
        };
    }
}
