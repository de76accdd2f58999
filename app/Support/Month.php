<?php

declare(strict_types=1);

namespace App\Support;

use Carbon\CarbonImmutable;
use Kybernet\Core\Calendar\Period;

/**
 * Between months and the dates that the database keeps for them.
 */
final class Month
{
    public static function date(Period $month): string
    {
        return $month->key().'-01';
    }

    public static function ofDate(string $date): Period
    {
        return Period::parse(substr($date, 0, 7));
    }

    /** The month that is running now, by the organisation's clock: nothing can be entered beyond it. */
    public static function running(): Period
    {
        return Period::parse(CarbonImmutable::now(resolve(Installation::class)->timeZone())->format('Y-m'));
    }

    /** `August 2026`, for sentences. */
    public static function words(Period $month): string
    {
        return CarbonImmutable::parse(self::date($month))->format('F Y');
    }
}
