<?php

declare(strict_types=1);

namespace App\Kept;

use App\Figures\KpiPlace;
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

    /** @param  list<int>  $ids  KPI-units of one unit and weight that stand alike */
    public function add(KpiPlace $place, array $ids, Status $status, bool $due, bool $reported): void
    {
        ($this->units[$place->unitId] ??= new Tally)->add($status, $place->weight, count($ids));
        $this->due += $due ? count($ids) : 0;
        $this->reported += $due && $reported ? count($ids) : 0;
        if ($due && ! $reported) {
            array_push($this->unread, ...$ids);
        }
    }
}
