<?php

declare(strict_types=1);

namespace App\Actions;

use App\Exceptions\Conflict;
use App\Models\Kpi;
use App\Models\KpiUnit;
use App\Models\Reading;
use App\Models\RuleSet;
use App\Models\Target;
use App\Models\Theme;
use App\Models\Unit;
use App\Support\Month;
use Brick\Math\BigDecimal;
use Illuminate\Database\Connection;
use Illuminate\Database\Query\Builder;
use Illuminate\Validation\ValidationException;
use Kybernet\Core\Calendar\Period;
use Kybernet\Core\Measure\Accumulation;
use Kybernet\Core\Status\Deviation;
use Kybernet\Core\Status\Polarity;
use Kybernet\Core\Status\Reference;
use Kybernet\Core\Status\RuleSet as CoreRuleSet;

/**
 * Defines a KPI, or changes its definition: with its rule set, where it is measured, and its targets, or not at all.
 */
final readonly class SaveKpi
{
    public function __construct(private Connection $database) {}

    /**
     * @throws Conflict when the definition was changed since it was read
     * @throws ValidationException when a unit that has figures would be taken away
     */
    public function __invoke(KpiDraft $draft, ?Kpi $kpi): Kpi
    {
        return $this->database->transaction(function () use ($draft, $kpi): Kpi {
            $attributes = [
                ...$draft->attributes,
                'theme_id' => $draft->theme === null ? null : Theme::query()->firstOrCreate(
                    ['name' => $draft->theme],
                    ['position' => 1 + (int) Theme::query()->max('position')],
                )->id,
            ];
            if ($kpi === null) {
                $kpi = Kpi::query()->create($attributes);
            } else {
                $changed = Kpi::query()->whereKey($kpi->id)->where('version', $draft->version)
                    ->update([...$attributes, 'version' => $draft->version + 1]);
                if ($changed === 0) {
                    throw new Conflict('This definition was changed by somebody else since you opened it. Your changes are kept here, but not saved.', [
                        'text' => $kpi->name,
                        'version' => $kpi->version,
                        'by' => '',
                    ]);
                }
            }
            $kpi->refresh();
            $this->saveRule($kpi, $draft);
            $this->dropUnsoundRules($kpi);
            $this->saveMeasurements($kpi, $draft);

            return $kpi;
        });
    }

    /** A rule that says what the one in force says already is not written again. */
    private function saveRule(Kpi $kpi, KpiDraft $draft): void
    {
        $rule = $draft->rule;
        if ($rule === null) {
            return;
        }
        $inForce = RuleSet::query()->where('kpi_id', $kpi->id)->whereNull('kpi_unit_id')->where('valid_from', '<=', Month::date($rule->from))
            ->orderByDesc('valid_from')->first();
        $same = $inForce !== null && $inForce->reference === $rule->reference->value && $inForce->measure === $rule->measure->value
            && $rule->green->isEqualTo($inForce->green) && $rule->amber->isEqualTo($inForce->amber);
        if (! $same) {
            RuleSet::query()->updateOrCreate(['kpi_id' => $kpi->id, 'kpi_unit_id' => null, 'valid_from' => Month::date($rule->from)], [
                'reference' => $rule->reference->value,
                'measure' => $rule->measure->value,
                'green' => (string) $rule->green,
                'amber' => (string) $rule->amber,
            ]);
        }
    }

    /**
     * A KPI's polarity is not dated. Where it was turned around, older limits that cannot judge it any longer go:
     * months before the newest rule set are then not judged, rather than judged the wrong way round.
     */
    private function dropUnsoundRules(Kpi $kpi): void
    {
        $polarity = Polarity::from($kpi->polarity);
        $unsound = RuleSet::query()->where('kpi_id', $kpi->id)->get()->filter(fn (RuleSet $rule): bool => $polarity !== Polarity::None
            && CoreRuleSet::problems($polarity, Accumulation::from($kpi->accumulation), Reference::from($rule->reference), Deviation::from($rule->measure), BigDecimal::of($rule->green), BigDecimal::of($rule->amber)) !== []);
        RuleSet::query()->whereKey($unsound->modelKeys())->delete();
    }

    private function saveMeasurements(Kpi $kpi, KpiDraft $draft): void
    {
        $this->removeUnits($kpi, $draft->units);
        KpiUnit::query()->where('kpi_id', $kpi->id)->update(['owner_id' => $draft->owner]);
        $positions = $this->database->table('kpi_unit')->whereIn('unit_id', $draft->units)->groupBy('unit_id')
            ->selectRaw('unit_id, max(position) AS last')->pluck('last', 'unit_id');
        KpiUnit::query()->insertOrIgnore(array_map(fn (int $unit): array => [
            'kpi_id' => $kpi->id,
            'unit_id' => $unit,
            'owner_id' => $draft->owner,
            'position' => 1 + $positions->get($unit, 0),
        ], $draft->units));

        $measured = KpiUnit::query()->where('kpi_id', $kpi->id)->pluck('id', 'unit_id');
        $set = [];
        $removed = [];
        foreach ($draft->targets as $unit => $months) {
            foreach ($months as $month => $target) {
                $key = ['kpi_unit_id' => $measured[$unit], 'period' => Month::date(Period::parse($month))];
                $target === null ? $removed[] = $key : $set[] = [...$key, 'target' => $target];
            }
        }
        Target::query()->upsert($set, ['kpi_unit_id', 'period'], ['target']);
        if ($removed !== []) {
            $this->database->table('targets')->where(function (Builder $query) use ($removed): void {
                foreach ($removed as $key) {
                    $query->orWhere(fn (Builder $one): Builder => $one->where($key));
                }
            })->delete();
        }
    }

    /** @param  list<int>  $kept */
    private function removeUnits(Kpi $kpi, array $kept): void
    {
        $removed = KpiUnit::query()->where('kpi_id', $kpi->id)->whereNotIn('unit_id', $kept)->pluck('unit_id', 'id');
        $withFigures = Reading::query()->whereIn('kpi_unit_id', $removed->keys())->pluck('kpi_unit_id')->first();
        if ($withFigures !== null) {
            $name = Unit::query()->whereKey($removed[$withFigures])->firstOrFail()->name;
            throw ValidationException::withMessages(['units' => "{$name} has figures of this KPI, so it stays."]);
        }
        KpiUnit::query()->whereKey($removed->keys())->delete();
    }
}
