<?php

declare(strict_types=1);

namespace App\Figures;

use Kybernet\Core\Status\Status;
use Kybernet\Core\Status\Tally;

/**
 * How the KPIs of many units stand at a month: all that their roll-ups need, and how much has arrived.
 */
final class CountedMonth
{
    /** @var array<int, Tally> the KPIs measured in each unit itself */
    public array $units = [];

    /** KPIs of which a period ends in the month. */
    public int $due = 0;

    /** Those of them with a reading. */
    public int $reported = 0;

    /** @var list<int> those of them without, as KPI-units */
    public array $unread = [];

    public function add(KpiPlace $kpi, Status $status, bool $due, bool $reported, int $times = 1): void
    {
        ($this->units[$kpi->unitId] ??= new Tally)->add($status, $kpi->weight, $times);
        $this->due += $due ? $times : 0;
        $this->reported += $reported ? $times : 0;
    }
}
