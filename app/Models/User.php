<?php

declare(strict_types=1);

namespace App\Models;

use Illuminate\Database\Eloquent\Collection;
use Illuminate\Database\Eloquent\Relations\BelongsToMany;
use Illuminate\Database\Eloquent\Relations\HasMany;
use Illuminate\Foundation\Auth\User as Authenticatable;

/**
 * @property int $id
 * @property string $name
 * @property string $email
 * @property string $password
 * @property string|null $blocked_at since when nobody can sign in with it
 * @property string|null $joined_at since when they have a password of their own; before that they are invited
 * @property string|null $seen_at
 * @property string|null $asked_at when they asked to be let in again and could not be written to
 * @property string|null $second_factor the secret of their time codes, encrypted
 * @property string|null $second_factor_since since when a code of it is asked for
 * @property int $second_factor_step of the latest code that was taken
 * @property string $locale the number setting, a BCP 47 tag: it decides which decimal separator is read
 * @property string $date_language in which months and days are written
 * @property Collection<int, Grant> $grants what they come to do, the first first
 */
final class User extends Authenticatable
{
    protected $fillable = ['name', 'email', 'password', 'locale', 'date_language'];

    /** What the database gives to whoever does not say. */
    protected $attributes = ['date_language' => 'en-GB'];

    protected $hidden = ['password', 'remember_token', 'second_factor'];

    /** @return HasMany<Grant, $this> */
    public function grants(): HasMany
    {
        $grants = $this->hasMany(Grant::class);
        $grants->orderBy('id');

        return $grants;
    }

    /** @return BelongsToMany<RecordSet, $this> that are theirs to bring records into */
    public function recordSets(): BelongsToMany
    {
        return $this->belongsToMany(RecordSet::class, 'record_set_owners');
    }

    /** @return array<string, string> */
    protected function casts(): array
    {
        return ['password' => 'hashed', 'second_factor' => 'encrypted', 'second_factor_step' => 'integer'];
    }
}
