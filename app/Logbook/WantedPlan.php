<?php

declare(strict_types=1);

namespace App\Logbook;

use Brick\Math\BigDecimal;
use Kybernet\Core\Calendar\Period;
use Kybernet\Core\Measure\PlanMethod;

/** How the targets of a year are to be made, for the KPIs of a unit and the units below it. */
final readonly class WantedPlan
{
    /**
     * @param  string  $unit  code
     * @param  Period  $month  any of the financial year
     * @param  list<string>  $codes  of the KPIs; none for all of the unit
     * @param  array<int, BigDecimal>  $figures  for the year, by identity of the KPI in its unit; where there is none, last year's is taken
     * @param  list<BigDecimal|null>  $weights  one a month
     * @param  int<0, max>|null  $decimals  that targets are rounded to; null for those that each KPI shows
     */
    public function __construct(
        public string $unit,
        public Period $month,
        public PlanMethod $method,
        public array $codes,
        public array $figures,
        public array $weights,
        public BigDecimal $percent,
        public BigDecimal $amount,
        public ?int $decimals,
    ) {}
}
