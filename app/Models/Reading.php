<?php

declare(strict_types=1);

namespace App\Models;

use Illuminate\Database\Eloquent\Model;

/**
 * @property int $id
 * @property int $kpi_unit_id
 * @property string $period the first day of the month
 * @property string|null $actual null when it was taken back
 * @property int $version counts the changes, so that nobody overwrites what they have not seen
 * @property int|null $entered_by
 */
final class Reading extends Model
{
    protected $fillable = ['kpi_unit_id', 'period', 'actual', 'version', 'entered_by'];
}
