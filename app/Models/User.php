<?php

declare(strict_types=1);

namespace App\Models;

use Illuminate\Database\Eloquent\Relations\BelongsTo;
use Illuminate\Foundation\Auth\User as Authenticatable;

/**
 * @property int $id
 * @property string $name
 * @property string $email
 * @property string $password
 * @property string|null $blocked_at since when nobody can sign in with it
 * @property string|null $joined_at since when they have a password of their own; before that they are invited
 * @property string|null $seen_at
 * @property Role $role
 * @property int $unit_id where the person belongs; a department head answers for it and all below
 * @property bool $is_administrator may change units, people and settings
 * @property string $locale the number setting, a BCP 47 tag: it decides which decimal separator is read
 * @property Unit $unit
 */
final class User extends Authenticatable
{
    protected $fillable = ['name', 'email', 'password', 'role', 'unit_id', 'locale'];

    protected $hidden = ['password', 'remember_token'];

    /** @return BelongsTo<Unit, $this> */
    public function unit(): BelongsTo
    {
        return $this->belongsTo(Unit::class);
    }

    /** @return array<string, string> */
    protected function casts(): array
    {
        return ['role' => Role::class, 'password' => 'hashed', 'is_administrator' => 'boolean'];
    }
}
