<?php

declare(strict_types=1);

namespace App\Models;

use Illuminate\Database\Eloquent\Model;

/**
 * The reason behind a colour: one for each KPI, unit and month.
 *
 * @property int $id
 * @property int $kpi_unit_id
 * @property string $period the first day of the month
 * @property string $text
 * @property int $version
 * @property int|null $author_id
 */
final class Note extends Model
{
    protected $fillable = ['kpi_unit_id', 'period', 'text', 'version', 'author_id'];
}
