<?php

declare(strict_types=1);

namespace Kybernet\Core\Calendar;

/**
 * How often a KPI is measured.
 */
enum Frequency: string
{
    case Week = 'week';
    case Month = 'month';
    case Quarter = 'quarter';
    case Year = 'year';

    /** One period of it as people write it, for messages. */
    public function example(): string
    {
        return match ($this) {
            self::Week => '2026-W14',
            self::Month => '2026-08',
            self::Quarter => 'FY2026-Q2',
            self::Year => 'FY2026',
        };
    }
}
