<?php

declare(strict_types=1);

namespace App\Organisation;

use App\Models\Unit;
use App\Support\Month;
use App\Support\PgArray;
use App\Support\Trail;
use Illuminate\Database\Connection;
use Illuminate\Support\Str;
use Illuminate\Validation\ValidationException;
use Kybernet\Core\Calendar\Period;

/**
 * From a month on nothing is measured in a unit and below it any longer; what was measured before stays, and what ended so
 * comes back with it.
 */
final readonly class RetireUnit
{
    public function __construct(private Connection $database, private Trail $trail, private UnitHistory $history) {}

    /** @throws ValidationException where a month from then on is closed, or it is retired already */
    public function retire(Unit $unit, Period $from): void
    {
        $batch = (string) Str::uuid();
        $this->trail->within($batch, '', function () use ($unit, $from, $batch): void {
            $this->database->statement('LOCK TABLE units IN SHARE ROW EXCLUSIVE MODE');
            $organisation = new Organisation;
            $below = $organisation->below($unit->id);
            $closed = $this->history->closed($below);
            $problem = match (true) {
                $unit->parent_id === null => 'It is the organisation itself, so it stays.',
                $unit->refresh()->retired_from !== null => 'It is retired already.',
                $closed !== null && $closed >= Month::date($from) => ucfirst(Month::ofDate($closed)->words()).' is closed for what is measured there. Choose a later month, or reopen it first.',
                default => '',
            };
            if ($problem !== '') {
                throw ValidationException::withMessages(['from' => $problem]);
            }
            $last = Month::date($from->plus(-1));
            // What begins only later would end before it begins; it is measured for no month.
            $this->database->update(
                'UPDATE kpi_unit SET measured_to = ? WHERE unit_id = ANY(?::bigint[]) AND coalesce(measured_to, \'infinity\') > ?::date AND coalesce(measured_from, \'-infinity\') <= ?::date',
                [$last, PgArray::of($below), $last, $last],
            );
            Unit::query()->whereKey($below)->whereNull('retired_from')->update(['retired_from' => Month::date($from), 'retired_by' => $batch]);
        });
    }

    /** What ended when it was retired is measured again. */
    public function bringBack(Unit $unit): void
    {
        $this->trail->within((string) Str::uuid(), '', function () use ($unit): void {
            $this->database->statement('LOCK TABLE units IN SHARE ROW EXCLUSIVE MODE');
            $batch = $unit->refresh()->retired_by;
            if ($batch === null) {
                return;
            }
            $units = Unit::query()->where('retired_by', $batch)->pluck('id')->all();
            $last = Month::date(Month::ofDate((string) $unit->retired_from)->plus(-1));
            $this->database->update(
                "UPDATE kpi_unit SET measured_to = (entry.before ->> 'measured_to')::date FROM audit_entries entry
                 WHERE entry.batch = ? AND entry.subject = 'kpi_unit' AND entry.kpi_unit_id = kpi_unit.id AND kpi_unit.measured_to = ?::date",
                [$batch, $last],
            );
            Unit::query()->whereKey($units)->update(['retired_from' => null, 'retired_by' => null]);
        });
    }
}
