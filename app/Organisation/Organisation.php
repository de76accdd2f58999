<?php

declare(strict_types=1);

namespace App\Organisation;

use App\Models\Unit;
use App\Models\UnitCode;
use App\Models\UnitStood;
use App\Support\Month;
use Brick\Math\BigDecimal;
use Illuminate\Database\Eloquent\Builder;
use Kybernet\Core\Calendar\Period;
use Kybernet\Core\Status\RollUpMethod;
use Kybernet\Core\Status\RollUpRule;
use Kybernet\Core\Status\UnitTree;

/**
 * All units, read once for each request, and the ways through their tree.
 */
final class Organisation
{
    /** @var array<int, Unit>|null in tree order: every unit stands before the units below it */
    private ?array $units = null;

    /** @var array<string, UnitTree<int>> by the last month for which it held; '' for the one of today */
    private array $trees = [];

    /** @var array<int, list<UnitStood>>|null how units stood and counted up to a month, earliest first, by unit */
    private ?array $history = null;

    /** @return array<int, Unit> */
    public function units(): array
    {
        if ($this->units === null) {
            $units = [];
            $waiting = [];
            // In the order of the database: sorting models takes longer than reading them.
            foreach (Unit::query()->tap(fn (Builder $query) => $query->orderBy('position')->orderBy('id'))->get() as $unit) {
                if ($unit->parent_id === null || isset($units[$unit->parent_id])) {
                    self::stand($unit, $waiting, $units);
                } else {
                    // What stands above it was moved behind it.
                    $waiting[$unit->parent_id][] = $unit;
                }
            }
            $this->units = $units;
        }

        return $this->units;
    }

    /**
     * @param  array<int, list<Unit>>  $waiting  for the unit above them
     * @param  array<int, Unit>  $units
     */
    private static function stand(Unit $unit, array $waiting, array &$units): void
    {
        $units[$unit->id] = $unit;
        foreach ($waiting[$unit->id] ?? [] as $below) {
            self::stand($below, $waiting, $units);
        }
    }

    /** @return array<string, string|null> the unit above each unit, by code */
    public function parents(): array
    {
        $parents = [];
        foreach ($this->units() as $unit) {
            $parents[$unit->code] = $unit->parent_id === null ? null : $this->units()[$unit->parent_id]->code;
        }

        return $parents;
    }

    /**
     * The tree as it stands, or as it stood in a month: a closed month keeps the one by which it was closed.
     *
     * @return UnitTree<int>
     */
    public function tree(?Period $month = null): UnitTree
    {
        $epoch = $month === null ? '' : $this->epoch(Month::date($month));
        if (! isset($this->trees[$epoch])) {
            // Units are many, their methods and weights few.
            $methods = [];
            $weights = [];
            $this->trees[$epoch] = new UnitTree(array_map(function (Unit $unit) use (&$methods, &$weights, $epoch): array {
                ['parent_id' => $parent, 'weight' => $weight, 'roll_up' => $name, 'roll_up_green' => $green, 'roll_up_other' => $other] = $this->stood($unit, $epoch);

                return [
                    'parent' => $parent,
                    'weight' => $weights[$weight] ??= BigDecimal::of($weight),
                    'method' => $methods["{$name} {$green} {$other}"] ??= self::made($name, $green, $other),
                ];
            }, $this->units()));
        }

        return $this->trees[$epoch];
    }

    /** How the unit's status follows from those under it; in a month, as it did then. */
    public static function method(Unit $unit): RollUpMethod
    {
        return self::made($unit->roll_up, $unit->roll_up_green, $unit->roll_up_other);
    }

    /** The same as {@see method()}, as it was in a month. */
    public function methodIn(Unit $unit, Period $month): RollUpMethod
    {
        ['roll_up' => $name, 'roll_up_green' => $green, 'roll_up_other' => $other] = $this->stood($unit, $this->epoch(Month::date($month)));

        return self::made($name, $green, $other);
    }

    /** The weight of a unit in the roll-up of the one above it, as it was in a month. */
    public function weightIn(Unit $unit, Period $month): string
    {
        return $this->stood($unit, $this->epoch(Month::date($month)))['weight'];
    }

    /** @return non-empty-list<int> the unit and all below it, as they stand or stood in a month */
    public function below(int $unit, ?Period $month = null): array
    {
        return $this->tree($month)->below($unit);
    }

    /**
     * The unit and all that stand below it, or stood there in one of the months.
     *
     * @param  list<Period>  $months
     * @return non-empty-list<int>
     */
    public function belowIn(int $unit, array $months): array
    {
        $found = array_flip($this->below($unit));
        foreach ($months as $month) {
            $found += array_flip($this->below($unit, $month));
        }

        return array_keys($found);
    }

    private static function made(string $rule, string $green, string $other): RollUpMethod
    {
        return RollUpMethod::by(RollUpRule::from($rule), (string) BigDecimal::of($green)->stripTrailingZeros(), (string) BigDecimal::of($other)->stripTrailingZeros());
    }

    /** The earliest month up to which something was kept that reaches as far as the date; '' where all is as today. */
    private function epoch(string $date): string
    {
        $epochs = [];
        foreach ($this->history() as $kept) {
            foreach ($kept as $row) {
                if ($row->until >= $date) {
                    $epochs[] = $row->until;
                    break;
                }
            }
        }

        return $epochs === [] ? '' : min($epochs);
    }

    /** @return array{parent_id: int|null, weight: string, roll_up: string, roll_up_green: string, roll_up_other: string} */
    private function stood(Unit $unit, string $epoch): array
    {
        foreach ($epoch === '' ? [] : $this->history()[$unit->id] ?? [] as $row) {
            if ($row->until >= $epoch) {
                return ['parent_id' => $row->parent_id, 'weight' => $row->weight, 'roll_up' => $row->roll_up, 'roll_up_green' => $row->roll_up_green, 'roll_up_other' => $row->roll_up_other];
            }
        }

        /** @var array{parent_id: int|null, weight: string, roll_up: string, roll_up_green: string, roll_up_other: string} */
        return $unit->getAttributes();
    }

    /** @return array<int, list<UnitStood>> by unit, the earliest first */
    private function history(): array
    {
        if ($this->history === null) {
            $this->history = [];
            foreach (UnitStood::query()->tap(fn (Builder $query) => $query->orderBy('until'))->get() as $row) {
                $this->history[$row->unit_id][] = $row;
            }
        }

        return $this->history;
    }

    /** @return non-empty-list<int> the unit and all above it, the organisation last */
    public function way(int $unit): array
    {
        $way = [$unit];
        for ($above = $this->unit($unit)->parent_id; $above !== null; $above = $this->unit($above)->parent_id) {
            $way[] = $above;
        }

        return $way;
    }

    /** How far below the organisation the unit stands: 0 for the organisation itself. */
    public function depth(int $unit): int
    {
        return count($this->way($unit)) - 1;
    }

    /** How many levels the unit and all below it take. */
    public function height(int $unit): int
    {
        return max(array_map($this->depth(...), $this->below($unit))) - $this->depth($unit) + 1;
    }

    /** @return list<Unit> directly under the unit, as they stand or stood in a month */
    public function children(int $unit, ?Period $month = null): array
    {
        $epoch = $month === null ? '' : $this->epoch(Month::date($month));

        return array_values(array_filter($this->units(), fn (Unit $each): bool => $this->stood($each, $epoch)['parent_id'] === $unit));
    }

    public function unit(int $id): Unit
    {
        return $this->units()[$id];
    }

    /**
     * By what units are called where names are masked: A to Z, AA and so on among those of their kind, in the order in
     * which they were made, so that a new one changes no other.
     *
     * @return array<int, string> by unit
     */
    public function letters(): array
    {
        $units = $this->units();
        ksort($units);
        [$letters, $next] = [[], []];
        foreach ($units as $unit) {
            $next[$unit->kind] ??= 'A';
            $letters[$unit->id] = $next[$unit->kind]++;
        }

        return $letters;
    }

    /** What a unit is called where names are hidden. */
    public function masked(Unit $unit): string
    {
        return ucfirst($unit->kind).' '.$this->letters()[$unit->id];
    }

    /** @return list<string> codes that units had before, in small letters */
    public function formerCodes(): array
    {
        return array_values(UnitCode::query()->get()->map(fn (UnitCode $former): string => mb_strtolower($former->code))->all());
    }

    /** By its code, or by one that it had before. */
    public function byCode(string $code): ?Unit
    {
        foreach ($this->units() as $unit) {
            if ($unit->code === $code) {
                return $unit;
            }
        }
        $former = UnitCode::query()->where('code', $code)->value('unit_id');

        return is_int($former) ? $this->units()[$former] ?? null : null;
    }
}
