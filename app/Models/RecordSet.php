<?php

declare(strict_types=1);

namespace App\Models;

use Illuminate\Database\Eloquent\Model;
use Illuminate\Database\Eloquent\Relations\BelongsToMany;

/**
 * A named table of records.
 *
 * @property int $id
 * @property string $code
 * @property string $name
 * @property int $unit_id
 * @property string $mode
 * @property string $way
 * @property int $version
 * @property string|null $retired_at
 */
final class RecordSet extends Model
{
    public function getRouteKeyName(): string
    {
        return 'code';
    }

    /** @return BelongsToMany<User, $this> */
    public function owners(): BelongsToMany
    {
        return $this->belongsToMany(User::class, 'record_set_owners');
    }
}
