<?php

declare(strict_types=1);

namespace Kybernet\Core\Trend;

/** A side of a control chart; of a steady run, where it is heading. */
enum Side: string
{
    case Upper = 'upper';
    case Lower = 'lower';

    public function sign(): int
    {
        return $this === self::Upper ? 1 : -1;
    }
}
