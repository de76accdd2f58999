<?php

declare(strict_types=1);

namespace App\Register\Views;

use App\Figures\CellText;
use App\Figures\CellValue;
use App\Figures\CountedText;
use App\Support\NumberSetting;
use App\Views\ColourTexts;
use Illuminate\Support\Collection;
use Kybernet\Core\Calendar\FinancialYear;
use Kybernet\Core\Calendar\Frequency;
use Kybernet\Core\Calendar\Period;
use Kybernet\Core\Measure\Accumulation;
use Kybernet\Core\Measure\Definition;
use Kybernet\Core\Measure\Kind;
use Kybernet\Core\Records\RecordSet;
use Kybernet\Core\Status\Polarity;
use Kybernet\Core\Status\RuleSet;
use Kybernet\Core\Workbook\KpiEntry;
use Kybernet\Core\Workbook\MeasurementEntry;
use Kybernet\Core\Workbook\WorkbookWriter;
use OpenApi\Attributes as OA;

#[OA\Schema(description: 'A KPI as the editor shows it. Figures are as this user would type them.')]
final readonly class KpiDefinition
{
    /**
     * @param  list<string>  $parts
     * @param  list<array<array-key, mixed>>  $splits
     * @param  list<MeasurementView>  $units
     * @param  list<string>  $drivers
     * @param  list<string>  $periods
     * @param  list<RuleView>  $history
     * @param  list<string>  $openQuestions
     */
    private function __construct(
        #[OA\Property] public string $code,
        #[OA\Property(description: 'whether it is theirs to change')] public bool $editable,
        #[OA\Property] public string $name,
        #[OA\Property] public string $purpose,
        #[OA\Property(description: 'code of the objective it serves')] public ?string $objective,
        #[OA\Property(enum: ['organisational', 'departmental', 'operational'])] public string $level,
        #[OA\Property] public ?string $theme,
        #[OA\Property(description: 'code of the department')] public string $department,
        #[OA\Property] public string $source,
        #[OA\Property] public ?int $dueDay,
        #[OA\Property] public bool $dataAvailable,
        #[OA\Property] public bool $definitionAgreed,
        #[OA\Property] public bool $noteRequired,
        #[OA\Property(enum: Kind::class)] public string $kind,
        #[OA\Property] public string $measure,
        #[OA\Property(minimum: 0, maximum: 8)] public int $decimals,
        #[OA\Property(description: 'shown in k, m or bn where it grows large')] public bool $scaled,
        #[OA\Property(enum: Frequency::class)] public string $frequency,
        #[OA\Property(enum: Accumulation::class)] public string $accumulation,
        #[OA\Property] public string $formula,
        #[OA\Property(ref: '#/components/schemas/Counted', nullable: true, description: 'how it is counted from records')] public ?object $counted,
        #[OA\Property(items: new OA\Items(type: 'string'), description: 'that are typed and add up to it')] public array $parts,
        #[OA\Property(items: new OA\Items(ref: '#/components/schemas/Split'))] public array $splits,
        #[OA\Property(description: 'what targets are worked out by where none is set')] public string $targetFormula,
        #[OA\Property(description: 'of a band: the same for its lower target')] public string $lowFormula,
        #[OA\Property(description: 'of a band: the same for its upper target')] public string $highFormula,
        #[OA\Property] public string $min,
        #[OA\Property] public string $max,
        #[OA\Property] public string $materiality,
        #[OA\Property(enum: ['', 'sum', 'mean', 'weighted', 'recompute'])] public string $gather,
        #[OA\Property] public ?string $weightedBy,
        #[OA\Property(enum: Polarity::class)] public string $polarity,
        #[OA\Property(description: 'the rule set in force in the month asked for')] public ?RuleView $rule,
        #[OA\Property(ref: '#/components/schemas/ColourTexts')] public ColourTexts $texts,
        #[OA\Property(items: new OA\Items(ref: '#/components/schemas/Measurement'))] public array $units,
        #[OA\Property(items: new OA\Items(type: 'string'), description: 'codes of the KPIs that drive it')] public array $drivers,
        #[OA\Property(items: new OA\Items(type: 'string'), description: 'its periods in the financial year asked for')] public array $periods,
        #[OA\Property(
            type: 'object',
            description: 'targets by unit code and period, of the financial year asked for',
            additionalProperties: new OA\AdditionalProperties(ref: '#/components/schemas/PeriodTargets'),
        )]
        public object $targets,
        #[OA\Property(ref: '#/components/schemas/PeriodTargets', description: 'figures set for the whole financial year, by unit code')] public object $yearTargets,
        #[OA\Property(
            type: 'object',
            description: 'its periods that are closed, by unit code: their targets stay',
            additionalProperties: new OA\AdditionalProperties(type: 'array', items: new OA\Items(type: 'string')),
        )]
        public object $closed,
        #[OA\Property(items: new OA\Items(ref: '#/components/schemas/Rule'), description: 'all rule sets, newest first')] public array $history,
        #[OA\Property(items: new OA\Items(type: 'string'), description: 'what must be asked before it can be relied on')] public array $openQuestions,
        #[OA\Property(description: 'send it back to change the definition; 0 for a new one')] public int $version,
    ) {}

    /**
     * @param  Period  $month  any month of the financial year whose targets are shown
     * @param  Collection<string, int>  $people  identities by e-mail address
     * @param  array<string, list<string>>  $closed  periods by unit
     * @param  RecordSet|null  $set  that it is counted from
     */
    public static function of(KpiEntry $kpi, int $version, Period $month, FinancialYear $year, NumberSetting $setting, Collection $people, array $closed, bool $isEditable, ?RecordSet $set): self
    {
        $definition = $kpi->definition;
        $figures = $set === null ? null : new CountedText($set, fn (string $place, string $figure): string => $setting->write($figure));
        $text = new CellText($setting);
        $months = $year->months($month);
        $periods = array_map(fn (Period $period): string => $period->key(), $year->endingIn($definition->frequency, $months[0], $months[11]));
        $financial = $year->of($month)->key();
        $targets = [];
        $yearTargets = [];
        foreach ($kpi->units as $unit) {
            $code = $unit->placed->unit;
            $upper = $unit->placed->upperTargets->all();
            $own = array_intersect_key($unit->placed->targets->all(), array_fill_keys($periods, true));
            $targets[$code] = (object) array_combine(array_keys($own), array_map(
                fn (string $figure, string $key): string => $text->write($definition, $kpi->isScaled, CellValue::kept($figure, $upper[$key] ?? null)),
                $own,
                array_keys($own),
            ));
            $set = $unit->placed->yearTargets[$financial] ?? null;
            if ($set !== null && $definition->frequency !== Frequency::Year) {
                $yearTargets[$code] = $text->write($definition, $kpi->isScaled, CellValue::kept($set, $unit->placed->upperYearTargets[$financial] ?? null));
            }
        }
        $rule = self::inForce($definition->rules, $month);
        $isBand = $definition->targetFormula?->isBand() === true;

        return new self(
            $kpi->code,
            $isEditable,
            $kpi->name,
            $kpi->purpose ?? '',
            $kpi->objective,
            $kpi->level ?? 'departmental',
            $kpi->theme,
            $kpi->department ?? '',
            $kpi->sourcing->source ?? '',
            $kpi->sourcing->dueDay,
            $kpi->sourcing->isAvailable,
            $kpi->sourcing->isAgreed,
            $kpi->sourcing->needsNote,
            $definition->kind->value,
            $definition->measure,
            $definition->decimals,
            $kpi->isScaled,
            $definition->frequency->value,
            $definition->accumulation->value,
            $definition->formula->text ?? '',
            $definition->counted === null || $figures === null ? null : (object) $figures->counted(WorkbookWriter::counted($definition->counted)),
            $kpi->parts,
            $figures === null ? [] : $figures->splits(array_map(WorkbookWriter::split(...), $kpi->splits)),
            $isBand ? '' : $definition->targetFormula->line->text ?? '',
            $isBand ? $definition->targetFormula->line->text ?? '' : '',
            $isBand ? $definition->targetFormula->upper->text ?? '' : '',
            $setting->write($definition->min),
            $setting->write($definition->max),
            $definition->materiality?->isZero() === false ? $setting->write($definition->materiality) : '',
            $definition->gathering->value ?? '',
            $definition->weightedBy,
            $definition->polarity->value,
            $rule === null ? null : RuleView::of($rule, $setting),
            ColourTexts::of($kpi->texts),
            array_map(fn (MeasurementEntry $unit): MeasurementView => self::place($unit, $month, $setting, $people), $kpi->units),
            $kpi->drivers,
            $periods,
            (object) $targets,
            (object) $yearTargets,
            (object) $closed,
            self::history($definition, $setting),
            $kpi->sourcing->openQuestions(
                array_filter($kpi->units, fn (MeasurementEntry $unit): bool => $unit->owner === null && ! $unit->placed->isGathered) === [],
                $definition->formula === null,
            ),
            $version,
        );
    }

    /** @param  Collection<string, int>  $people */
    private static function place(MeasurementEntry $unit, Period $month, NumberSetting $setting, Collection $people): MeasurementView
    {
        $own = self::inForce($unit->placed->ownRules, $month);

        return new MeasurementView(
            $unit->placed->unit,
            $unit->weight->toFloat(),
            $unit->owner === null ? null : $people->get($unit->owner),
            $unit->placed->tenure->from?->key(),
            $unit->placed->tenure->to?->key(),
            $unit->placed->isGathered,
            $own === null ? null : RuleView::of($own, $setting),
        );
    }

    /**
     * The rule set in force in the month; before any is, the first that will be.
     *
     * @param  list<RuleSet>  $rules
     */
    private static function inForce(array $rules, Period $month): ?RuleSet
    {
        usort($rules, fn (RuleSet $one, RuleSet $other): int => $one->from->compareTo($other->from));

        return Definition::inForce($rules, $month) ?? $rules[0] ?? null;
    }

    /** @return list<RuleView> */
    private static function history(Definition $definition, NumberSetting $setting): array
    {
        $rules = $definition->rules;
        usort($rules, fn (RuleSet $one, RuleSet $other): int => $other->from->compareTo($one->from));

        return array_map(fn (RuleSet $rule): RuleView => RuleView::of($rule, $setting), $rules);
    }
}
