<?php

declare(strict_types=1);

namespace App\Kept;

use App\Figures\MeasurementPlace;
use Kybernet\Core\Status\Status;
use Kybernet\Core\Status\Tally;

/**
 * How the KPIs of many units stand at a month: all that their roll-ups need, and how much has arrived.
 */
final class CountedMonth
{
    /** @var array<int, Tally> the KPIs measured in each unit itself */
    public array $units = [];

    /** Readings of the month that people owe. */
    public int $owed = 0;

    /** Those of them that are there. */
    public int $arrived = 0;

    /** @var array<int, int> how many are not, by measurement */
    public array $missing = [];

    /** @param  list<int>  $ids  measurements of one unit and weight that stand alike */
    public function add(MeasurementPlace $place, array $ids, Status $status, int $owed, int $arrived): void
    {
        ($this->units[$place->unitId] ??= new Tally)->add($status, $place->weight, count($ids));
        $this->owed += $owed * count($ids);
        $this->arrived += $arrived * count($ids);
        if ($arrived < $owed) {
            $this->missing += array_fill_keys($ids, $owed - $arrived);
        }
    }
}
