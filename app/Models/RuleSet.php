<?php

declare(strict_types=1);

namespace App\Models;

use Illuminate\Database\Eloquent\Model;
use Illuminate\Database\Eloquent\Relations\BelongsTo;

/**
 * @property int $id
 * @property int $kpi_id
 * @property int|null $kpi_unit_id null for the KPI as a whole
 * @property string $valid_from the first day of the first month that it judges
 * @property string $reference
 * @property string $measure
 * @property string $green
 * @property string $amber
 * @property string|null $stretch
 * @property string|null $margin_low of a band's level
 */
final class RuleSet extends Model
{
    public $timestamps = false;

    protected $fillable = ['kpi_id', 'kpi_unit_id', 'valid_from', 'reference', 'measure', 'green', 'amber'];

    /** @return BelongsTo<Kpi, $this> */
    public function kpi(): BelongsTo
    {
        return $this->belongsTo(Kpi::class);
    }
}
