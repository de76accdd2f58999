<?php

declare(strict_types=1);

namespace App\Organisation;

use App\Models\Unit;
use App\Models\UnitCode;
use App\Support\Conflict;
use App\Support\Month;
use App\Support\PgArray;
use App\Support\Trail;
use Illuminate\Database\Connection;
use Illuminate\Database\QueryException;
use Illuminate\Support\Str;
use Illuminate\Validation\ValidationException;
use stdClass;

/**
 * Changes what a unit is called, where it stands and how it counts, and takes away one on which nothing hangs. What closed
 * months said of anybody stays: for them it stands and counts as before.
 */
final readonly class SaveUnit
{
    /** The database's word for a row that is there already. */
    private const TAKEN = '23505';

    public function __construct(private Connection $database, private Trail $trail, private TakeUnitsAway $takeAway, private UnitHistory $history) {}

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
            $organisation = new Organisation;
            $place = $wanted->parent === $stands->parent ? $unit->parent_id : $this->place($organisation, $unit, (string) $wanted->parent);
            if ($wanted->parent !== $stands->parent || $wanted->weight !== $stands->weight || $wanted->rollUp !== $stands->rollUp) {
                $this->history->keep($unit, [...$organisation->way($unit->id), ...($place === null ? [] : $organisation->way($place))]);
            }
            $this->recode($unit, $wanted->code);
            $unit->forceFill([
                'name' => $wanted->name, 'kind' => $unit->parent_id === null ? $unit->kind : $wanted->kind, 'weight' => $wanted->weight,
                'roll_up' => $wanted->rollUp[0], 'roll_up_green' => $wanted->rollUp[1], 'roll_up_other' => $wanted->rollUp[2],
                ...($place === $unit->parent_id ? [] : ['parent_id' => $place, 'position' => $this->last() + 1]),
            ])->save();
        });
    }

    /** @throws ValidationException where the code is taken */
    public function make(string $code, string $name, string $kind, Unit $above, string $weight): Unit
    {
        $unit = new Unit;
        $this->within(function () use ($unit, $code, $name, $kind, $above, $weight): void {
            if (UnitCode::query()->whereRaw('lower(code) = lower(?)', [$code])->exists()) {
                throw ValidationException::withMessages(['code' => "Another unit had the code {$code} before."]);
            }
            $unit->forceFill(['code' => $code, 'name' => $name, 'kind' => $kind, 'parent_id' => $above->id, 'weight' => $weight, 'position' => $this->last() + 1])->save();
        });

        return $unit->refresh();
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
     * Another code; the one before still finds it.
     *
     * @throws ValidationException where another unit has or had it
     */
    private function recode(Unit $unit, string $code): void
    {
        if ($code === $unit->code) {
            return;
        }
        $taken = Unit::query()->whereRaw('lower(code) = lower(?)', [$code])->whereKeyNot($unit->id)->value('name')
            ?? Unit::query()->whereIn('id', UnitCode::query()->whereRaw('lower(code) = lower(?)', [$code])->where('unit_id', '<>', $unit->id)->select('unit_id'))->value('name');
        if (is_string($taken)) {
            throw ValidationException::withMessages(['code' => "{$taken} has this code, or had it before."]);
        }
        // Its own of before becomes the one of today again.
        UnitCode::query()->whereRaw('lower(code) = lower(?)', [$code])->delete();
        if (mb_strtolower($code) !== mb_strtolower($unit->code)) {
            UnitCode::query()->create(['code' => $unit->code, 'unit_id' => $unit->id]);
        }
        $unit->forceFill(['code' => $code]);
    }

    /**
     * @return int the unit above it from now on
     *
     * @throws ValidationException
     */
    private function place(Organisation $organisation, Unit $unit, string $parent): int
    {
        $above = $organisation->byCode($parent);
        $problem = match (true) {
            $unit->parent_id === null => 'The organisation stands above everything.',
            $above === null => 'There is no such unit.',
            in_array($above->id, $organisation->below($unit->id), true) => "{$above->name} is part of {$organisation->unit($unit->id)->name}, which cannot stand below itself.",
            $organisation->depth($above->id) + $organisation->height($unit->id) > UnitList::MOST_DEPTH => 'The tree goes up to '.UnitList::MOST_DEPTH.' levels down.',
            default => $this->gathered($organisation->below($unit->id), [...$organisation->way($unit->parent_id), ...$organisation->way($above->id)]),
        };
        if ($above === null || $problem !== '') {
            throw ValidationException::withMessages(['parent' => $problem]);
        }

        return $above->id;
    }

    /**
     * Figures that a unit above gathers from those below it are worked out for every month, closed ones too.
     *
     * @param  list<int>  $moving
     * @param  list<int>  $above
     * @return string why the units cannot move; '' where no figure of a closed month would follow
     */
    private function gathered(array $moving, array $above): string
    {
        $closed = $this->history->closed($above);
        if ($closed === null) {
            return '';
        }
        $found = $this->database->selectOne(
            'SELECT kpis.name, units.name AS unit FROM kpi_unit JOIN kpis ON kpis.id = kpi_id JOIN units ON units.id = unit_id
             WHERE unit_id = ANY(?::bigint[]) AND ((is_gathered AND EXISTS (SELECT FROM kpi_unit below WHERE below.kpi_id = kpi_unit.kpi_id AND below.unit_id = ANY(?::bigint[])))
                OR concat_ws(\' \', kpis.formula, kpis.target_formula, kpis.high_target_formula) LIKE \'%below(%\') LIMIT 1',
            [PgArray::of($above), PgArray::of($moving)],
        );

        return $found instanceof stdClass && is_string($found->name) && is_string($found->unit)
            ? ucfirst(Month::ofDate($closed)->words())." is closed, and {$found->unit} gathers {$found->name} from the units below it: its closed figures would be others. Reopen what is closed first, or make a new unit there."
            : '';
    }

    private function last(): int
    {
        $last = Unit::query()->max('position');

        return is_numeric($last) ? (int) $last : 0;
    }

    private function within(\Closure $work): void
    {
        try {
            $this->trail->within((string) Str::uuid(), '', function () use ($work): void {
                // Of two who move units at once, the second looks at the tree of the first.
                $this->database->statement('LOCK TABLE units IN SHARE ROW EXCLUSIVE MODE');
                $work();
            });
        } catch (QueryException $failure) {
            throw $failure->getCode() === self::TAKEN ? ValidationException::withMessages(['code' => 'Another unit has this code.']) : $failure;
        }
    }
}
