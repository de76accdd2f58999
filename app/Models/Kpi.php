<?php

declare(strict_types=1);

namespace App\Models;

use Illuminate\Database\Eloquent\Collection;
use Illuminate\Database\Eloquent\Model;
use Illuminate\Database\Eloquent\Relations\BelongsTo;
use Illuminate\Database\Eloquent\Relations\HasMany;
use Kybernet\Core\Measure\Kind;
use Kybernet\Core\Status\Polarity;

/**
 * @property int $id
 * @property string $code
 * @property string $name
 * @property string $purpose what it tells, in a sentence
 * @property string $measure the unit of measure, `Ml/d`
 * @property int $decimals shown
 * @property bool $scaled shown in thousands, millions or billions where it grows large
 * @property int $department_id
 * @property int|null $theme_id
 * @property string $level
 * @property string $polarity
 * @property string $accumulation
 * @property string $kind `entered`, `formula`, `records` or `judged`
 * @property string $frequency
 * @property string|null $formula
 * @property int|null $record_set_id that it is counted from
 * @property string|null $target_formula of a band that of its lower target
 * @property string|null $high_target_formula of a band
 * @property int|null $objective_id
 * @property string $source where its figures are taken from
 * @property int|null $due_day day of the month after a period
 * @property bool $data_available
 * @property bool $definition_agreed
 * @property bool $note_required
 * @property int $version counts the changes, so that two people cannot overwrite each other
 * @property Unit $department
 * @property Theme|null $theme
 * @property Collection<int, RuleSet> $ruleSets newest first
 * @property Collection<int, Measurement> $measurements
 */
final class Kpi extends Model
{
    /** Whether it is to be judged, but no limits say how. */
    public function lacksLimits(bool $hasRules): bool
    {
        return $this->polarity !== Polarity::None->value && $this->kind !== Kind::Judged->value && ! $hasRules;
    }

    public function getRouteKeyName(): string
    {
        return 'code';
    }

    /** @return BelongsTo<Unit, $this> */
    public function department(): BelongsTo
    {
        return $this->belongsTo(Unit::class);
    }

    /** @return BelongsTo<Theme, $this> */
    public function theme(): BelongsTo
    {
        return $this->belongsTo(Theme::class);
    }

    /** @return HasMany<RuleSet, $this> */
    public function ruleSets(): HasMany
    {
        $sets = $this->hasMany(RuleSet::class);
        $sets->whereNull('kpi_unit_id')->orderByDesc('valid_from');

        return $sets;
    }

    /** @return HasMany<Measurement, $this> */
    public function measurements(): HasMany
    {
        $measurements = $this->hasMany(Measurement::class);
        $measurements->orderBy('id');

        return $measurements;
    }

    /** @return array<string, string> */
    protected function casts(): array
    {
        return ['scaled' => 'boolean', 'data_available' => 'boolean', 'definition_agreed' => 'boolean', 'note_required' => 'boolean', 'decimals' => 'integer', 'version' => 'integer'];
    }
}
