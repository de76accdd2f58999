<?php

declare(strict_types=1);

namespace App\Logbook;

use App\Figures\Closures;
use App\Figures\CountedWriter;
use App\Models\Unit;
use App\Models\User;
use App\Organisation\Organisation;
use App\Support\Month;
use App\Support\Trail;
use Illuminate\Database\Connection;
use Illuminate\Support\Str;
use Illuminate\Validation\ValidationException;
use Kybernet\Core\Calendar\Period;

/**
 * Closes a month for a unit and all below it, and reopens it with a reason. In a closed month no reading, target, note
 * or call can change by any route.
 *
 * The trigger kybernet_closing waits for writers on their way (docs/architecture.md, Hidden hops).
 */
final readonly class ClosePeriod
{
    public function __construct(
        private Connection $database,
        private Organisation $organisation,
        private Closures $closures,
        private Trail $trail,
        private CountedWriter $counts,
    ) {}

    /** @throws ValidationException when the month is not over */
    public function close(Unit $unit, Period $month, User $user): void
    {
        if ($month->compareTo(Month::running()) >= 0) {
            throw ValidationException::withMessages(['period' => Month::words($month).' is not over yet.']);
        }
        $this->trail->within((string) Str::uuid(), '', fn (): int => $this->database->table('period_states')->insertOrIgnore(array_map(
            fn (int $id): array => ['unit_id' => $id, 'period' => Month::date($month), 'closed_by' => $user->id],
            $this->organisation->below($unit->id),
        )));
        $this->closures->forget();
    }

    public function reopen(Unit $unit, Period $month, string $reason): void
    {
        // A unit above that stays closed would say of a month that it is complete when it is not.
        $units = $this->organisation->below($unit->id);
        for ($above = $unit->parent_id; $above !== null; $above = $this->organisation->unit($above)->parent_id) {
            $units[] = $above;
        }
        $this->trail->within((string) Str::uuid(), $reason, function () use ($units, $month): void {
            $this->database->table('period_states')->whereIn('unit_id', $units)->where('period', Month::date($month))->delete();
            $this->closures->forget();
            // What came late is taken in.
            $this->counts->takeIn($units);
        });
    }
}
