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

    /** That of a period as it is written; anything that is no week, quarter or year counts as a month. */
    public static function ofKey(string $period): self
    {
        return match (true) {
            preg_match('/\A\d{4}-W/', $period) === 1 => self::Week,
            preg_match('/\AFY\d{4}-Q/', $period) === 1 => self::Quarter,
            str_starts_with($period, 'FY') => self::Year,
            default => self::Month,
        };
    }

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
