<?php

declare(strict_types=1);

namespace App\Models;

use Illuminate\Database\Eloquent\Model;
use Illuminate\Database\Eloquent\Relations\BelongsTo;

/**
 * What a person comes to do for a part of the tree.
 *
 * @property int $id
 * @property int $user_id
 * @property Role $role
 * @property int $unit_id the unit that heads the part
 * @property Unit $unit
 */
final class Grant extends Model
{
    public $timestamps = false;

    protected $fillable = ['user_id', 'role', 'unit_id'];

    /** @return BelongsTo<Unit, $this> */
    public function unit(): BelongsTo
    {
        return $this->belongsTo(Unit::class);
    }

    /** @return array<string, string> */
    protected function casts(): array
    {
        return ['role' => Role::class];
    }
}
