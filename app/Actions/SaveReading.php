<?php

declare(strict_types=1);

namespace App\Actions;

use App\Exceptions\Conflict;
use App\Models\KpiUnit;
use App\Models\Reading;
use App\Models\User;
use App\Support\Month;
use App\Support\NumberSetting;
use Brick\Math\BigDecimal;
use Illuminate\Database\Connection;
use Kybernet\Core\Calendar\Period;

/**
 * Enters, changes or takes back the reading of one KPI in one unit for one month.
 */
final readonly class SaveReading
{
    public function __construct(private Connection $database) {}

    /**
     * @param  int  $seen  the version that the person saw; 0 when there was no reading
     *
     * @throws Conflict when the reading is another one by now; nothing is overwritten
     */
    public function __invoke(KpiUnit $measured, Period $month, ?BigDecimal $figure, int $seen, User $user): void
    {
        $key = ['kpi_unit_id' => $measured->id, 'period' => Month::date($month)];
        $written = $seen === 0
            ? $this->database->table('readings')->insertOrIgnore([
                ...$key, 'actual' => $figure?->__toString(), 'version' => 1, 'entered_by' => $user->id,
                'created_at' => now(), 'updated_at' => now(),
            ])
            : Reading::query()->where($key)->where('version', $seen)->update([
                'actual' => $figure?->__toString(), 'version' => $seen + 1, 'entered_by' => $user->id,
            ]);
        if ($written === 1) {
            return;
        }
        $current = $this->database->table('readings')->leftJoin('users', 'users.id', '=', 'readings.entered_by')
            ->where($key)->first(['actual', 'version', 'users.name as by']);
        $typed = (new NumberSetting($user->locale))->write($current?->actual);
        $by = $current->by ?? 'Somebody';

        throw new Conflict($typed === '' ? "{$by} took this reading back in the meantime." : "{$by} entered {$typed} in the meantime.", [
            'text' => $typed,
            'version' => $current->version ?? 0,
            'by' => $by,
        ]);
    }
}
