<?php

declare(strict_types=1);

namespace App\Models;

use Illuminate\Database\Eloquent\Model;

/**
 * A code that a unit had before: it still finds the unit.
 *
 * @property string $code
 * @property int $unit_id
 */
final class UnitCode extends Model
{
    public $timestamps = false;

    public $incrementing = false;

    protected $primaryKey = 'code';

    protected $keyType = 'string';

    protected $fillable = ['code', 'unit_id'];
}
