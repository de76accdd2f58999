<?php

declare(strict_types=1);

namespace Kybernet\Core\Calendar;

/**
 * From which month to which a KPI is measured in a unit, both included; open where null. A period is inside when the
 * month in which it ends is.
 */
final readonly class Tenure
{
    public function __construct(public ?Period $from = null, public ?Period $to = null) {}

    public function isOpen(): bool
    {
        return $this->from === null && $this->to === null;
    }

    public function holds(Period $period, FinancialYear $year): bool
    {
        if ($this->isOpen()) {
            return true;
        }
        $month = $year->endMonth($period);

        return ($this->from === null || $month->compareTo($this->from) >= 0) && ($this->to === null || $month->compareTo($this->to) <= 0);
    }
}
