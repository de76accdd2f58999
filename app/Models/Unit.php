<?php

declare(strict_types=1);

namespace App\Models;

use Illuminate\Database\Eloquent\Model;

/**
 * @property int $id
 * @property string $code
 * @property string $name
 * @property string $kind `organisation`, `department` or what its members are called, `zone`
 * @property int|null $parent_id
 * @property string $weight in the roll-up of the unit above
 * @property int $position
 * @property string $roll_up `weighted`, `worst` or `share`
 * @property string $roll_up_green the cut for green: a score, or % of the weight
 * @property string|null $retired_from the first month in which nothing is measured there any longer
 * @property string|null $retired_by what ended together with it, in the trail
 * @property string $roll_up_other the cut for amber, or under `share` % of the weight for red
 */
final class Unit extends Model
{
    public $timestamps = false;

    protected $fillable = ['code', 'name', 'kind', 'parent_id', 'weight', 'position'];

    public function getRouteKeyName(): string
    {
        return 'code';
    }

    /**
     * By its code, or by one that it had before: addresses that people keep go on working.
     *
     * @param  mixed  $value
     * @param  string|null  $field
     */
    public function resolveRouteBinding($value, $field = null): ?Model
    {
        return parent::resolveRouteBinding($value, $field) ?? self::query()->whereIn('id', UnitCode::query()->where('code', $value)->select('unit_id'))->first();
    }
}
