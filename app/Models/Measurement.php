<?php

declare(strict_types=1);

namespace App\Models;

use Illuminate\Database\Eloquent\Collection;
use Illuminate\Database\Eloquent\Model;
use Illuminate\Database\Eloquent\Relations\BelongsTo;
use Illuminate\Database\Eloquent\Relations\HasMany;

/**
 * A KPI as it is measured in one unit.
 *
 * @property int $id
 * @property int $kpi_id
 * @property int $unit_id
 * @property int|null $owner_id who enters its figures
 * @property string $weight in the unit's roll-up
 * @property int $position
 * @property string|null $measured_to the first day of its last month
 * @property bool $is_gathered worked out from the units below
 * @property Collection<int, RuleSet> $ruleSets of this unit alone
 * @property Kpi $kpi
 * @property Unit $unit
 * @property User|null $owner
 */
final class Measurement extends Model
{
    public $timestamps = false;

    protected $table = 'kpi_unit';

    protected $fillable = ['kpi_id', 'unit_id', 'owner_id', 'weight', 'position'];

    /** @return BelongsTo<Kpi, $this> */
    public function kpi(): BelongsTo
    {
        return $this->belongsTo(Kpi::class);
    }

    /** @return BelongsTo<Unit, $this> */
    public function unit(): BelongsTo
    {
        return $this->belongsTo(Unit::class);
    }

    /** @return BelongsTo<User, $this> */
    public function owner(): BelongsTo
    {
        return $this->belongsTo(User::class);
    }

    /** @return HasMany<RuleSet, $this> */
    public function ruleSets(): HasMany
    {
        return $this->hasMany(RuleSet::class);
    }
}
