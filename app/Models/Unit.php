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
}
