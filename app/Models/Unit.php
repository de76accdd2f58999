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
