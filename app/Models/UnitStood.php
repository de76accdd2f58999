<?php

declare(strict_types=1);

namespace App\Models;

use Illuminate\Database\Eloquent\Model;

/**
 * How a unit stood and counted up to a month that was closed when it changed.
 *
 * @property int $unit_id
 * @property string $until the first day of the last month for which it held
 * @property int|null $parent_id
 * @property string $weight
 * @property string $roll_up
 * @property string $roll_up_green
 * @property string $roll_up_other
 */
final class UnitStood extends Model
{
    public $timestamps = false;

    protected $table = 'unit_history';
}
