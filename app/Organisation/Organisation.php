<?php

declare(strict_types=1);

namespace App\Organisation;

use App\Models\Unit;
use Brick\Math\BigDecimal;
use Illuminate\Database\Eloquent\Builder;
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

    /** @var UnitTree<int>|null */
    private ?UnitTree $tree = null;

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

    /** @return UnitTree<int> */
    public function tree(): UnitTree
    {
        if ($this->tree === null) {
            // Units are many, their methods and weights few.
            $methods = [];
            $weights = [];
            $this->tree = new UnitTree(array_map(function (Unit $unit) use (&$methods, &$weights): array {
                ['parent_id' => $parent, 'weight' => $weight, 'roll_up' => $name, 'roll_up_green' => $green, 'roll_up_other' => $other] = $unit->getAttributes();

                return [
                    'parent' => $parent,
                    'weight' => $weights[$weight] ??= BigDecimal::of($weight),
                    'method' => $methods["{$name} {$green} {$other}"] ??= self::method($unit),
                ];
            }, $this->units()));
        }

        return $this->tree;
    }

    /** How the unit's status follows from those under it. */
    public static function method(Unit $unit): RollUpMethod
    {
        $green = (string) BigDecimal::of($unit->roll_up_green)->stripTrailingZeros();
        $other = (string) BigDecimal::of($unit->roll_up_other)->stripTrailingZeros();

        return RollUpMethod::by(RollUpRule::from($unit->roll_up), $green, $other);
    }

    /** @return non-empty-list<int> the unit and all below it */
    public function below(int $unit): array
    {
        return $this->tree()->below($unit);
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

    /** @return list<Unit> directly under the unit */
    public function children(int $unit): array
    {
        return array_values(array_filter($this->units(), fn (Unit $each): bool => $each->parent_id === $unit));
    }

    public function unit(int $id): Unit
    {
        return $this->units()[$id];
    }

    public function byCode(string $code): ?Unit
    {
        foreach ($this->units() as $unit) {
            if ($unit->code === $code) {
                return $unit;
            }
        }

        return null;
    }
}
