<?php

declare(strict_types=1);

namespace App\Figures;

use App\Support\Month;
use Kybernet\Core\Status\BandLimits;
use Kybernet\Core\Status\Reference;
use Kybernet\Core\Status\RuleSet;
use Kybernet\Core\Workbook\KpiEntry;
use Kybernet\Core\Workbook\WorkbookWriter;

/**
 * A KPI and its rule sets as the columns that they are kept in. What they refer to is left to the caller, who knows
 * the identities.
 */
final class KpiColumns
{
    /** @return array<string, mixed> */
    public static function definition(KpiEntry $kpi): array
    {
        $definition = $kpi->definition;

        return [
            'code' => $kpi->code,
            'name' => $kpi->name,
            'purpose' => $kpi->purpose ?? '',
            'measure' => $definition->measure,
            'decimals' => $definition->decimals,
            'scaled' => $kpi->isScaled,
            'level' => $kpi->level ?? 'departmental',
            'polarity' => $definition->polarity->value,
            'accumulation' => $definition->accumulation->value,
            'kind' => $definition->kind->value,
            'frequency' => $definition->frequency->value,
            'formula' => $definition->formula?->text,
            'counted' => $definition->counted === null ? null : json_encode(WorkbookWriter::counted($definition->counted), JSON_THROW_ON_ERROR),
            'splits' => $kpi->splits === [] ? null : json_encode(array_map(WorkbookWriter::split(...), $kpi->splits), JSON_THROW_ON_ERROR),
            'parts' => $kpi->parts === [] ? null : json_encode($kpi->parts, JSON_THROW_ON_ERROR),
            'target_formula' => $definition->targetFormula?->line->text,
            'high_target_formula' => $definition->targetFormula?->upper?->text,
            'min' => $definition->min?->__toString(),
            'max' => $definition->max?->__toString(),
            'materiality' => (string) ($definition->materiality ?? '0'),
            'gathering' => $definition->gathering?->value,
            'source' => $kpi->sourcing->source ?? '',
            'due_day' => $kpi->sourcing->dueDay,
            'data_available' => $kpi->sourcing->isAvailable,
            'definition_agreed' => $kpi->sourcing->isAgreed,
            'note_required' => $kpi->sourcing->needsNote,
            'text_green' => $kpi->texts['green'] ?? null,
            'text_amber' => $kpi->texts['amber'] ?? null,
            'text_red' => $kpi->texts['red'] ?? null,
        ];
    }

    /** @return array<string, mixed> */
    public static function rule(RuleSet $rule): array
    {
        $limits = $rule->limits;

        return [
            'valid_from' => Month::date($rule->from),
            'reference' => $rule->reference->value,
            'measure' => $rule->measure->value,
            // Of a band's levels the columns of the two limits hold low and high.
            'green' => (string) ($limits instanceof BandLimits ? $limits->low : $limits->green),
            'amber' => (string) ($limits instanceof BandLimits ? $limits->high : $limits->amber),
            'periods' => $rule->periods,
            'pace' => $rule->reference === Reference::YearTarget ? $rule->pace->value : null,
            'stretch' => $rule->stretch?->__toString(),
            'margin_low' => $limits instanceof BandLimits ? (string) $limits->marginLow : null,
            'margin_high' => $limits instanceof BandLimits ? (string) $limits->marginHigh : null,
        ];
    }
}
