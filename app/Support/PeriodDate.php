<?php

declare(strict_types=1);

namespace App\Support;

use Carbon\CarbonImmutable;
use Kybernet\Core\Calendar\FinancialYear;
use Kybernet\Core\Calendar\Frequency;
use Kybernet\Core\Calendar\Period;

/**
 * Between periods of any frequency and the dates that the database keeps for them: the first day of a month, quarter
 * or year, and the Monday of a week.
 */
final class PeriodDate
{
    /** @var array<string, array<string, Period>> */
    private array $known = [];

    public function __construct(private readonly FinancialYear $year) {}

    public function date(Period $period): string
    {
        if ($period->frequency !== Frequency::Week) {
            return Month::date($this->year->beginMonth($period));
        }
        sscanf($period->key(), '%4d-W%2d', $year, $week);

        return CarbonImmutable::create(2000)?->setISODate((int) $year, (int) $week)->format('Y-m-d') ?? throw new \LogicException('A week has a Monday.');
    }

    public function period(string $date, Frequency $frequency): Period
    {
        return $this->known[$frequency->value][$date] ??= match ($frequency) {
            Frequency::Month => Month::ofDate($date),
            Frequency::Week => Period::parse(CarbonImmutable::parse($date)->format('o-\WW'), Frequency::Week),
            Frequency::Quarter, Frequency::Year => $this->year->latestEnded($frequency, Month::ofDate($date)->previous())->plus(1),
        };
    }
}
