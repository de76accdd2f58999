<?php

declare(strict_types=1);

namespace App\Http\Resources;

use App\Models\Kpi;
use App\Models\KpiUnit;
use App\Models\RuleSet;
use App\Models\Target;
use App\Support\Month;
use App\Support\NumberSetting;
use Kybernet\Core\Calendar\Period;
use OpenApi\Attributes as OA;

#[OA\Schema(description: 'A KPI as the editor shows it. Figures are as this user would type them.')]
final readonly class KpiDefinition
{
    /**
     * @param  list<string>  $units
     */
    private function __construct(
        #[OA\Property] public string $code,
        #[OA\Property] public string $name,
        #[OA\Property] public string $purpose,
        #[OA\Property] public string $measure,
        #[OA\Property(minimum: 0, maximum: 8)] public int $decimals,
        #[OA\Property(description: 'shown in k, m or bn where it grows large')] public bool $scaled,
        #[OA\Property(description: 'code of the department')] public string $department,
        #[OA\Property] public ?string $theme,
        #[OA\Property(enum: ['organisational', 'departmental', 'operational'])] public string $level,
        #[OA\Property(enum: ['higher', 'lower', 'band', 'none'])] public string $polarity,
        #[OA\Property(enum: ['sum', 'mean', 'latest', 'maximum', 'minimum', 'recompute'])] public string $accumulation,
        #[OA\Property(description: 'the rule set in force in the month asked for')] public ?RuleResource $rule,
        #[OA\Property(description: 'who enters its figures')] public ?int $owner,
        #[OA\Property(items: new OA\Items(type: 'string'), description: 'codes of the units where it is measured')]
        public array $units,
        #[OA\Property(
            type: 'object',
            description: 'targets by unit code and month, of the financial year asked for',
            additionalProperties: new OA\AdditionalProperties(ref: '#/components/schemas/MonthTargets'),
        )]
        public object $targets,
        #[OA\Property(description: 'whether the editor has a place for all of it; a workbook can say more')] public bool $fitsEditor,
        #[OA\Property(description: 'send it back to change the definition; 0 for a new one')] public int $version,
    ) {}

    /** @param  Kpi  $kpi with rule sets, measurements, their units and their targets of the year */
    public static function of(Kpi $kpi, Period $month, NumberSetting $setting): self
    {
        $rule = $kpi->ruleSets->first(fn (RuleSet $rule): bool => Month::ofDate($rule->valid_from)->compareTo($month) <= 0)
            ?? $kpi->ruleSets->last();
        $targets = [];
        foreach ($kpi->measurements as $measured) {
            $targets[$measured->unit->code] = (object) $measured->targets->whereNotNull('target')
                ->mapWithKeys(fn (Target $target): array => [Month::ofDate($target->period)->key() => $setting->write($target->target)])
                ->all();
        }

        return new self(
            $kpi->code,
            $kpi->name,
            $kpi->purpose,
            $kpi->measure,
            $kpi->decimals,
            $kpi->scaled,
            $kpi->department->code,
            $kpi->theme?->name,
            $kpi->level,
            $kpi->polarity,
            $kpi->accumulation,
            $rule === null || ! $kpi->fitsEditor() ? null : RuleResource::of($rule, $setting),
            $kpi->measurements->first()?->owner_id,
            array_values($kpi->measurements->map(fn (KpiUnit $measured): string => $measured->unit->code)->all()),
            (object) $targets,
            $kpi->fitsEditor(),
            $kpi->version,
        );
    }
}
