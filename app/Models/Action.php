<?php

declare(strict_types=1);

namespace App\Models;

use Illuminate\Database\Eloquent\Model;
use Illuminate\Database\Eloquent\Relations\BelongsTo;

/**
 * What was agreed about a KPI in a unit, after the period that caused it.
 *
 * @property int $id
 * @property int $kpi_unit_id
 * @property string $period the first day of the period that caused it
 * @property string $what
 * @property string $who
 * @property string $due the day by which it is to be done
 * @property string $state `open`, `done` or `dropped`
 * @property string $outcome what came of it, or why it was dropped
 * @property string|null $ended the day on which it was done or dropped
 * @property int $version
 * @property Measurement $measurement
 */
final class Action extends Model
{
    protected $fillable = ['kpi_unit_id', 'period', 'what', 'who', 'due', 'state', 'outcome', 'ended', 'version', 'author_id'];

    /** @return BelongsTo<Measurement, $this> */
    public function measurement(): BelongsTo
    {
        return $this->belongsTo(Measurement::class, 'kpi_unit_id');
    }
}
