<?php

declare(strict_types=1);

namespace App\Organisation;

use App\Models\Unit;
use App\Support\Month;
use Illuminate\Database\Connection;

/**
 * Keeps how a unit stood and counted in months that are closed, before it stands or counts otherwise: what those months
 * said of anybody stays.
 */
final readonly class UnitHistory
{
    /** Of `kybernet_closing`: closings take it alone, so that none is on its way while this looks for closed months. */
    private const CLOSING = 8172;

    public function __construct(private Connection $database) {}

    /**
     * @param  list<int>  $units  whose roll-ups would follow
     * @return string|null the latest month that is closed for one of them, as a date
     */
    public function closed(array $units): ?string
    {
        $this->database->select('SELECT pg_advisory_xact_lock_shared(?)', [self::CLOSING]);
        $last = $this->database->table('period_states')->whereIn('unit_id', $units)->max('period');

        return is_string($last) ? $last : null;
    }

    /**
     * To be called before the unit is changed.
     *
     * @param  list<int>  $units  whose roll-ups would follow
     * @return string|null the month up to which it stays as it was, in words; null where nothing is closed
     */
    public function keep(Unit $unit, array $units): ?string
    {
        $until = $this->closed($units);
        if ($until === null) {
            return null;
        }
        // Where it is kept for that month already, it has changed since: what it was then stays.
        $this->database->table('unit_history')->insertOrIgnore([
            'unit_id' => $unit->id, 'until' => $until, 'parent_id' => $unit->parent_id, 'weight' => $unit->weight,
            'roll_up' => $unit->roll_up, 'roll_up_green' => $unit->roll_up_green, 'roll_up_other' => $unit->roll_up_other,
        ]);

        return Month::ofDate($until)->words();
    }
}
