<?php

declare(strict_types=1);

namespace App\Models;

use Illuminate\Database\Eloquent\Model;
use Illuminate\Database\Eloquent\Relations\BelongsToMany;

/**
 * A page for one group of readers.
 *
 * @property int $id
 * @property string $code
 * @property string $name
 * @property int $unit_id
 * @property string $span
 * @property string $audience `unit` for everybody who may open the unit, `people` for those named
 * @property string $content the draft
 * @property int $version
 * @property string $kept_at
 * @property int|null $kept_by
 * @property string|null $retired_at
 */
final class Briefing extends Model
{
    public $timestamps = false;

    public function getRouteKeyName(): string
    {
        return 'code';
    }

    /** @return BelongsToMany<User, $this> */
    public function readers(): BelongsToMany
    {
        return $this->belongsToMany(User::class, 'briefing_readers');
    }
}
