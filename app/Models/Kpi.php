<?php

declare(strict_types=1);

namespace App\Models;

use Illuminate\Database\Eloquent\Collection;
use Illuminate\Database\Eloquent\Model;
use Illuminate\Database\Eloquent\Relations\BelongsTo;
use Illuminate\Database\Eloquent\Relations\HasMany;
use Kybernet\Core\Calendar\Frequency;
use Kybernet\Core\Measure\Accumulation;
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
 * @property string $kind `entered`, `formula` or `judged`
 * @property string $frequency
 * @property string|null $formula
 * @property int $version counts the changes, so that two people cannot overwrite each other
 * @property Unit $department
 * @property Theme|null $theme
 * @property Collection<int, RuleSet> $ruleSets newest first
 * @property Collection<int, KpiUnit> $measurements
 */
final class Kpi extends Model
{
    protected $fillable = [
        'code', 'name', 'purpose', 'measure', 'decimals', 'scaled', 'department_id', 'theme_id', 'level', 'polarity', 'accumulation', 'version',
    ];

    /** Whether it is to be judged, but no limits say how. */
    public function lacksLimits(bool $hasRules): bool
    {
        return $this->polarity !== Polarity::None->value && $this->kind !== Kind::Judged->value && ! $hasRules;
    }

    /** Whether the editor has a place for everything that the definition says; a workbook can say more. */
    public function fitsEditor(): bool
    {
        $isPlain = fn (RuleSet $rule): bool => in_array([$rule->reference, $rule->measure], [['target', 'percent'], ['none', 'level']], true)
            && $rule->stretch === null && $rule->margin_low === null;

        return preg_match('/\A[A-Z][A-Z0-9-]{0,15}\z/', $this->code) === 1
            && mb_strlen($this->name) <= 120 && mb_strlen($this->measure) <= 24
            && $this->kind === Kind::Entered->value
            && $this->frequency === Frequency::Month->value
            && $this->polarity !== Polarity::Band->value
            && in_array($this->accumulation, [Accumulation::Sum->value, Accumulation::Mean->value, Accumulation::Latest->value], true)
            && $this->ruleSets->every($isPlain)
            && $this->measurements->every(fn (KpiUnit $measured): bool => ! $measured->is_gathered && $measured->ruleSets->isEmpty());
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

    /** @return HasMany<KpiUnit, $this> */
    public function measurements(): HasMany
    {
        $measurements = $this->hasMany(KpiUnit::class);
        $measurements->orderBy('id');

        return $measurements;
    }

    /** @return array<string, string> */
    protected function casts(): array
    {
        return ['scaled' => 'boolean', 'decimals' => 'integer', 'version' => 'integer'];
    }
}
