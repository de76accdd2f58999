<?php

declare(strict_types=1);

namespace App\Models;

use Illuminate\Database\Eloquent\Model;

/**
 * @property int $kpi_unit_id
 * @property string $period the first day of the month
 * @property string|null $target null for a band, which has two
 */
final class Target extends Model
{
    public $timestamps = false;

    public $incrementing = false;

    protected $primaryKey = 'kpi_unit_id';

    protected $fillable = ['kpi_unit_id', 'period', 'target'];
}
