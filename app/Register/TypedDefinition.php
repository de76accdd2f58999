<?php

declare(strict_types=1);

namespace App\Register;

use App\Figures\CountedText;
use App\Figures\DatabaseWorkbook;
use App\Models\Kpi;
use App\Models\User;
use App\Records\RecordSets;
use App\Support\NumberSetting;
use InvalidArgumentException;
use Kybernet\Core\Calendar\Period;
use Kybernet\Core\Measure\Accumulation;
use Kybernet\Core\Status\BandLimits;
use Kybernet\Core\Status\Deviation;
use Kybernet\Core\Status\Polarity;
use Kybernet\Core\Status\Reference;
use Kybernet\Core\Status\RuleSet;
use Kybernet\Core\Workbook\MeasurementEntry;
use Kybernet\Core\Workbook\WorkbookWriter;

/**
 * From a definition as it is typed in the editor to the same as a workbook has it: figures read in the person's number
 * setting, the rule set in force replaced by a dated one, older ones kept.
 */
final readonly class TypedDefinition
{
    private const LIMITS = ['green', 'amber', 'stretch', 'low', 'high', 'marginLow', 'marginHigh'];

    public function __construct(private DatabaseWorkbook $workbook, private RecordSets $sets) {}

    /**
     * @param  array<string, mixed>  $input
     * @return array{array<string, mixed>, TypedFields, array<string, string>} the KPI, where its members were typed, and what is no figure by field
     */
    public function __invoke(array $input, ?Kpi $current, NumberSetting $setting): array
    {
        $problems = [];
        $isJudged = ($input['kind'] ?? '') === 'judged';
        $polarity = is_string($input['polarity'] ?? null) ? $input['polarity'] : 'none';
        $accumulation = Accumulation::tryFrom(is_string($input['accumulation'] ?? null) ? $input['accumulation'] : '') ?? Accumulation::Mean;
        $kept = $current === null ? null : $this->workbook->kpi($current->id, Period::month(2, 1), Period::month(2, 1));
        $figure = function (string $field, mixed $typed) use ($setting, &$problems): ?string {
            try {
                return $setting->read(is_string($typed) ? $typed : '')?->stripTrailingZeros()->__toString();
            } catch (InvalidArgumentException $problem) {
                $problems[$field] = $problem->getMessage();

                return null;
            }
        };
        $rule = fn (mixed $typed, string $field): ?array => ! is_array($typed) || $isJudged || $polarity === 'none' ? null : self::rule($typed, $field, $polarity, $figure);
        [$rules, $place] = self::dated($rule($input['rule'] ?? null, 'rule'), $isJudged ? [] : $kept->definition->rules ?? [], Polarity::from($polarity), $accumulation);
        $units = [];
        $places = [];
        $emails = User::query()->pluck('email', 'id');
        $before = array_column(array_map(fn (MeasurementEntry $unit): array => ['code' => $unit->placed->unit, 'entry' => $unit], $kept->units ?? []), 'entry', 'code');
        foreach (is_array($input['units'] ?? null) ? array_values($input['units']) : [] as $index => $unit) {
            $old = $before[$unit['unit']] ?? null;
            [$own, $places[$index]] = self::dated($rule($unit['rule'] ?? null, "units.{$index}.rule"), isset($unit['rule']) && ! $isJudged ? $old->placed->ownRules ?? [] : [], Polarity::from($polarity), $accumulation);
            $units[] = array_filter([
                'unit' => $unit['unit'],
                'weight' => (float) $unit['weight'],
                'position' => $old?->position,
                'owner' => isset($unit['owner']) ? $emails[$unit['owner']] ?? null : null,
                'from' => $unit['from'] ?? null,
                'to' => $unit['to'] ?? null,
                'gathered' => (bool) $unit['gathered'],
                'rules' => $own,
                'baseline' => $old === null || $old->placed->baseline === null || $old->placed->baseline === [] ? null : [
                    'from' => $old->placed->baseline[0]->key(),
                    'to' => $old->placed->baseline[count($old->placed->baseline) - 1]->key(),
                ],
            ], fn (mixed $member): bool => $member !== null && $member !== '');
        }
        $text = fn (string $member): ?string => is_string($input[$member] ?? null) && trim($input[$member]) !== '' ? trim($input[$member]) : null;
        $number = fn (string $member): ?string => $isJudged ? null : $figure($member, $input[$member] ?? null);
        $gather = $isJudged ? null : $text('gather');
        $kpi = [
            'code' => $input['code'], 'name' => $input['name'], 'purpose' => $text('purpose'), 'kind' => $input['kind'],
            'measure' => $isJudged ? null : $text('measure'), 'decimals' => (int) $input['decimals'], 'scale' => (bool) $input['scaled'] ? 'auto' : null,
            'polarity' => $isJudged ? null : $polarity, 'frequency' => $input['frequency'], 'accumulation' => $input['accumulation'],
            'formula' => $input['kind'] === 'formula' ? $text('formula') ?? '' : null, 'level' => $input['level'], 'department' => $input['department'],
            'theme' => $text('theme'), 'objective' => $text('objective'), 'source' => $text('source'),
            'dueDay' => isset($input['dueDay']) ? (int) $input['dueDay'] : null, 'dataAvailable' => (bool) $input['dataAvailable'],
            'definitionAgreed' => (bool) $input['definitionAgreed'], 'noteRequired' => (bool) $input['noteRequired'],
            'drivers' => array_values($input['drivers'] ?? []),
            'texts' => array_filter(array_intersect_key($input['texts'] ?? [], ['green' => 1, 'amber' => 1, 'red' => 1]), fn (mixed $each): bool => is_string($each) && $each !== ''),
            'min' => $number('min'), 'max' => $number('max'), 'materiality' => $number('materiality'),
            'gather' => $gather === null ? null : array_filter(['method' => $gather, 'weight' => $gather === 'weighted' ? $text('weightedBy') : null], is_string(...)),
            'units' => $units,
            'rules' => $rules,
        ];
        if ($input['kind'] === 'entered' && ($input['parts'] ?? []) !== []) {
            $kpi['parts'] = array_values(array_map(trim(...), $input['parts']));
        }
        if ($input['kind'] === 'records') {
            [$kpi['accumulation'], $kpi['counted'], $kpi['splits']] = [null, ...$this->counted($input, $figure)];
        }
        $kpi['texts'] = $kpi['texts'] === [] ? null : $kpi['texts'];
        $aims = $isJudged ? [] : ($polarity === 'band' ? ['lowFormula', 'highFormula'] : ['targetFormula']);
        if (array_filter(array_map($text, $aims), is_string(...)) !== []) {
            // One that is missing is told beside its own field: it stands there blank.
            $kpi += array_combine($aims, array_map(fn (string $member): string => $text($member) ?? '', $aims));
        }

        return [array_filter($kpi, fn (mixed $member): bool => $member !== null), new TypedFields($place, $places), $problems];
    }

    /**
     * @param  array<string, mixed>  $input
     * @param  \Closure(string, mixed): (string|null)  $figure
     * @return array{array<array-key, mixed>, list<array<array-key, mixed>>}
     */
    private function counted(array $input, \Closure $figure): array
    {
        $counted = array_filter(is_array($input['counted'] ?? null) ? $input['counted'] : [], fn (mixed $member): bool => $member !== null && $member !== '' && $member !== []);
        $splits = array_map(fn (array $split): array => array_filter($split, fn (mixed $member): bool => $member !== null && $member !== '' && $member !== []), array_values(array_filter(is_array($input['splits'] ?? null) ? $input['splits'] : [], is_array(...))));
        $set = is_string($counted['records'] ?? null) ? $this->sets->byCode($counted['records']) : null;
        if ($set === null) {
            return [$counted, $splits];
        }
        $text = new CountedText($set->set(), fn (string $place, string $typed): string => $figure($place, $typed) ?? $typed);

        return [$text->counted($counted), $text->splits($splits)];
    }

    /**
     * @param  array<string, mixed>  $typed
     * @param  \Closure(string, mixed): (string|null)  $figure
     * @return array<string, mixed>
     */
    public static function rule(array $typed, string $field, string $polarity, \Closure $figure): array
    {
        $isBandLevel = $polarity === 'band' && ($typed['measure'] ?? '') === 'level';
        $members = $isBandLevel ? ['low', 'high', 'marginLow', 'marginHigh'] : ['green', 'amber', 'stretch'];
        $rule = ['from' => $typed['from'] ?? null, 'reference' => $typed['reference'] ?? null, 'measure' => $typed['measure'] ?? null];
        foreach (array_intersect(self::LIMITS, $members) as $member) {
            if ($member !== 'stretch' || $polarity !== 'band') {
                $rule[$member] = $figure("{$field}.{$member}", $typed[$member] ?? null);
            }
        }
        if (($typed['reference'] ?? '') === 'recent') {
            $rule['periods'] = is_numeric($typed['periods'] ?? null) ? (int) $typed['periods'] : null;
        }
        if (($typed['reference'] ?? '') === 'year-target') {
            $rule['pace'] = ($typed['pace'] ?? 'whole') === 'whole' ? null : $typed['pace'];
        }

        return array_filter($rule, fn (mixed $member): bool => $member !== null);
    }

    /**
     * @param  array<string, mixed>|null  $typed
     * @param  list<RuleSet>  $kept
     * @return array{list<array<string, mixed>>, int|null} all rule sets, and the place of the one that was typed
     */
    private static function dated(?array $typed, array $kept, Polarity $polarity, Accumulation $accumulation): array
    {
        // A KPI's polarity is not dated. Where it was turned around, limits that cannot judge it any longer go.
        $rules = array_map(WorkbookWriter::rule(...), array_values(array_filter($kept, fn (RuleSet $rule): bool => self::isSound($rule, $polarity, $accumulation))));
        if ($typed === null) {
            return [$rules, null];
        }
        foreach ($rules as $index => $rule) {
            if ($rule['from'] === $typed['from']) {
                $rules[$index] = $typed;

                return [$rules, $index];
            }
        }
        usort($rules, fn (array $one, array $other): int => $one['from'] <=> $other['from']);
        $inForce = array_values(array_filter($rules, fn (array $rule): bool => $rule['from'] <= $typed['from']));
        // What says the same as the one in force is not written again.
        if ($inForce !== [] && self::limits($inForce[count($inForce) - 1]) === self::limits($typed)) {
            return [$rules, count($inForce) - 1];
        }

        return [[...$rules, $typed], count($rules)];
    }

    private static function isSound(RuleSet $rule, Polarity $polarity, Accumulation $accumulation): bool
    {
        if ($rule->limits instanceof BandLimits || ($polarity === Polarity::Band && $rule->measure === Deviation::Level)) {
            return $rule->limits instanceof BandLimits && $polarity === Polarity::Band;
        }

        return RuleSet::problems($polarity, $accumulation, $rule->reference, $rule->measure, $rule->limits->green, $rule->limits->amber, $rule->periods, $rule->stretch, $rule->reference === Reference::YearTarget ? $rule->pace : null) === [];
    }

    /**
     * @param  array<string, mixed>  $rule
     * @return array<string, mixed>
     */
    private static function limits(array $rule): array
    {
        unset($rule['from']);
        ksort($rule);

        return $rule;
    }
}
