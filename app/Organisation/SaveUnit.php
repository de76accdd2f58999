<?php

declare(strict_types=1);

namespace App\Organisation;

use App\Models\Unit;
use App\Support\Conflict;
use App\Support\Month;
use App\Support\Trail;
use Illuminate\Database\Connection;
use Illuminate\Support\Str;
use Illuminate\Validation\ValidationException;

/**
 * Changes what a unit is called and where it stands, and takes away one on which nothing hangs. What closed months said
 * of anybody stays: a unit does not move where a roll-up of a closed month would follow.
 */
final readonly class SaveUnit
{
    /** Of `kybernet_closing`: closings take it alone, so that none is on its way while this looks for closed months. */
    private const CLOSING = 8172;

    public function __construct(private Connection $database, private Trail $trail, private TakeUnitsAway $takeAway) {}

    /**
     * @param  WantedUnit  $seen  as it stood when it was opened
     *
     * @throws Conflict where it stands otherwise by now; nothing is overwritten
     * @throws ValidationException where it cannot stand there
     */
    public function change(Unit $unit, WantedUnit $wanted, WantedUnit $seen): void
    {
        $this->within(function () use ($unit, $wanted, $seen): void {
            $stands = WantedUnit::of($unit->refresh());
            // The same once more comes from an answer that was lost.
            if ($wanted->is($stands)) {
                return;
            }
            if (! $stands->is($seen)) {
                throw new Conflict("Somebody else changed this unit since you opened it: it is {$stands->name}, {$stands->kind}".($stands->parent === null ? '' : ", below {$stands->parent}").'.', ['name' => $stands->name, 'kind' => $stands->kind, 'parent' => $stands->parent]);
            }
            $unit->forceFill(['name' => $wanted->name, 'kind' => $unit->parent_id === null ? $unit->kind : $wanted->kind]);
            if ($wanted->parent !== $stands->parent) {
                $unit->forceFill(['parent_id' => $this->place($unit, (string) $wanted->parent), 'position' => $this->last() + 1]);
            }
            $unit->save();
        });
    }

    /** @throws ValidationException with what hangs on it */
    public function takeAway(Unit $unit): void
    {
        $this->within(function () use ($unit): void {
            if ($unit->parent_id === null) {
                throw ValidationException::withMessages(['unit' => 'It is the organisation itself, so it stays.']);
            }
            ($this->takeAway)([$unit->id => $unit->name], 'unit', ', so it stays.');
        });
    }

    /**
     * @return int the unit above it from now on
     *
     * @throws ValidationException
     */
    private function place(Unit $unit, string $parent): int
    {
        $organisation = new Organisation;
        $above = $organisation->byCode($parent);
        $problem = match (true) {
            $unit->parent_id === null => 'The organisation stands above everything.',
            $above === null => 'There is no such unit.',
            in_array($above->id, $organisation->below($unit->id), true) => "{$above->name} is part of {$organisation->unit($unit->id)->name}, which cannot stand below itself.",
            $organisation->depth($above->id) + $organisation->height($unit->id) > UnitList::MOST_DEPTH => 'The tree goes up to '.UnitList::MOST_DEPTH.' levels down.',
            default => $this->closed([...$organisation->way($unit->parent_id), ...$organisation->way($above->id)]),
        };
        if ($above === null || $problem !== '') {
            throw ValidationException::withMessages(['parent' => $problem]);
        }

        return $above->id;
    }

    /**
     * @param  list<int>  $units  whose roll-ups would follow
     * @return string why not, '' where none of their months is closed
     */
    private function closed(array $units): string
    {
        $this->database->select('SELECT pg_advisory_xact_lock_shared(?)', [self::CLOSING]);
        $closed = (array) $this->database->table('period_states')->join('units', 'units.id', '=', 'unit_id')->whereIn('unit_id', $units)->orderByDesc('period')->first(['name', 'period']);
        [$name, $month] = [$closed['name'] ?? null, $closed['period'] ?? null];

        return is_string($name) && is_string($month) ? ucfirst(Month::ofDate($month)->words())." is closed for {$name}, and what it said would change. Reopen it first, or make a new unit there." : '';
    }

    private function last(): int
    {
        $last = Unit::query()->max('position');

        return is_numeric($last) ? (int) $last : 0;
    }

    private function within(\Closure $work): void
    {
        $this->trail->within((string) Str::uuid(), '', function () use ($work): void {
            // Of two who move units at once, the second looks at the tree of the first.
            $this->database->statement('LOCK TABLE units IN SHARE ROW EXCLUSIVE MODE');
            $work();
        });
    }
}
