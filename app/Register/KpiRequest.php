<?php

declare(strict_types=1);

namespace App\Register;

use App\Figures\CellText;
use App\Figures\CellValue;
use App\Http\MonthRule;
use App\Models\Kpi;
use App\Models\User;
use App\Support\NumberSetting;
use Illuminate\Foundation\Http\FormRequest;
use Illuminate\Support\Str;
use Illuminate\Validation\Rule;
use Illuminate\Validation\Validator;
use InvalidArgumentException;
use Kybernet\Core\Calendar\FinancialYear;
use Kybernet\Core\Calendar\Frequency;
use Kybernet\Core\Calendar\Period;
use Kybernet\Core\Measure\Accumulation;
use Kybernet\Core\Measure\Gathering;
use Kybernet\Core\Measure\Kind;
use Kybernet\Core\Status\Deviation;
use Kybernet\Core\Status\Pace;
use Kybernet\Core\Status\Polarity;
use Kybernet\Core\Status\Reference;
use Kybernet\Core\Workbook\KpiEntry;
use OpenApi\Attributes as OA;

/**
 * A definition as the editor sends it. Every problem is told beside its own field, all of them at once; what a
 * definition may say is the core's to know.
 */
#[OA\Schema(
    schema: 'KpiInput',
    required: [
        'code', 'name', 'purpose', 'objective', 'level', 'theme', 'department', 'source', 'dueDay', 'dataAvailable', 'definitionAgreed', 'noteRequired',
        'kind', 'measure', 'decimals', 'scaled', 'frequency', 'accumulation', 'formula', 'targetFormula', 'lowFormula', 'highFormula', 'min', 'max', 'materiality', 'gather', 'weightedBy',
        'polarity', 'rule', 'texts', 'units', 'drivers', 'targets', 'yearTargets', 'version',
    ],
    properties: [
        new OA\Property(property: 'code', type: 'string', maxLength: 64),
        new OA\Property(property: 'name', type: 'string', maxLength: 200),
        new OA\Property(property: 'purpose', type: 'string', maxLength: 4000),
        new OA\Property(property: 'objective', description: 'code of the objective it serves', type: 'string', nullable: true),
        new OA\Property(property: 'level', type: 'string', enum: ['organisational', 'departmental', 'operational']),
        new OA\Property(property: 'theme', type: 'string', nullable: true),
        new OA\Property(property: 'department', description: 'code of the unit that answers for it', type: 'string'),
        new OA\Property(property: 'source', description: 'where its figures are taken from', type: 'string', maxLength: 200),
        new OA\Property(property: 'dueDay', type: 'integer', nullable: true, maximum: 31, minimum: 1),
        new OA\Property(property: 'dataAvailable', type: 'boolean'),
        new OA\Property(property: 'definitionAgreed', type: 'boolean'),
        new OA\Property(property: 'noteRequired', description: 'a bad colour must be explained before the month is handed in', type: 'boolean'),
        new OA\Property(property: 'kind', type: 'string', enum: Kind::class),
        new OA\Property(property: 'measure', type: 'string', maxLength: 60),
        new OA\Property(property: 'decimals', type: 'integer', maximum: 8, minimum: 0),
        new OA\Property(property: 'scaled', type: 'boolean'),
        new OA\Property(property: 'frequency', type: 'string', enum: Frequency::class),
        new OA\Property(property: 'accumulation', type: 'string', enum: Accumulation::class),
        new OA\Property(property: 'formula', type: 'string', maxLength: 2000),
        new OA\Property(property: 'counted', ref: '#/components/schemas/Counted', nullable: true, description: 'how it is counted from records'),
        new OA\Property(property: 'parts', description: 'that are typed and add up to it', type: 'array', items: new OA\Items(type: 'string', maxLength: 120)),
        new OA\Property(property: 'splits', type: 'array', items: new OA\Items(ref: '#/components/schemas/Split')),
        new OA\Property(property: 'targetFormula', description: 'what targets are worked out by where none is set', type: 'string', maxLength: 2000),
        new OA\Property(property: 'lowFormula', description: 'of a band: the same for its lower target', type: 'string', maxLength: 2000),
        new OA\Property(property: 'highFormula', description: 'of a band: the same for its upper target', type: 'string', maxLength: 2000),
        new OA\Property(property: 'min', description: 'what a figure cannot fall below, as typed', type: 'string'),
        new OA\Property(property: 'max', type: 'string'),
        new OA\Property(property: 'materiality', type: 'string'),
        new OA\Property(property: 'gather', description: 'how its units become one figure above them', type: 'string', enum: ['', 'sum', 'mean', 'weighted', 'recompute']),
        new OA\Property(property: 'weightedBy', description: 'code of the KPI that weights the mean over units', type: 'string', nullable: true),
        new OA\Property(property: 'polarity', type: 'string', enum: Polarity::class),
        new OA\Property(property: 'rule', ref: '#/components/schemas/Rule', nullable: true),
        new OA\Property(property: 'texts', ref: '#/components/schemas/ColourTexts'),
        new OA\Property(property: 'units', type: 'array', items: new OA\Items(ref: '#/components/schemas/Measurement')),
        new OA\Property(property: 'drivers', type: 'array', items: new OA\Items(type: 'string')),
        new OA\Property(
            property: 'targets',
            description: 'by unit code and period; a blank removes the target',
            type: 'object',
            additionalProperties: new OA\AdditionalProperties(ref: '#/components/schemas/PeriodTargets'),
        ),
        new OA\Property(property: 'yearTargets', ref: '#/components/schemas/PeriodTargets', description: 'figures set for the whole financial year, by unit code'),
        new OA\Property(
            property: 'seenTargets',
            description: 'the targets as they were read: those that are sent unchanged stay as they are by now, those that somebody else has changed are refused',
            type: 'object',
            additionalProperties: new OA\AdditionalProperties(ref: '#/components/schemas/PeriodTargets'),
        ),
        new OA\Property(property: 'seenYearTargets', ref: '#/components/schemas/PeriodTargets', description: 'the same for the financial year'),
        new OA\Property(property: 'version', type: 'integer'),
    ],
)]
#[OA\Schema(
    schema: 'PeriodTargets',
    description: 'targets as this user types them',
    type: 'object',
    additionalProperties: new OA\AdditionalProperties(type: 'string'),
)]
final class KpiRequest extends FormRequest
{
    private ?KpiDraft $draft = null;

    protected function prepareForValidation(): void
    {
        // Anything but text is told by the rules.
        $this->merge(array_filter([
            'code' => is_string($this->input('code')) ? trim($this->input('code')) : null,
            'name' => is_string($this->input('name')) ? Str::squish($this->input('name')) : null,
        ], is_string(...)));
    }

    /** @return array<string, mixed> */
    public function rules(): array
    {
        return [
            'code' => ['required', 'string', 'max:64', 'regex:/\A[A-Za-z][A-Za-z0-9_.-]*\z/'],
            'name' => ['required', 'string', 'max:200'],
            'purpose' => ['nullable', 'string', 'max:4000'],
            'objective' => ['nullable', 'string'],
            'level' => ['required', 'in:organisational,departmental,operational'],
            'theme' => ['nullable', 'string', 'max:80'],
            'department' => ['required', 'string', Rule::exists('units', 'code')],
            'source' => ['nullable', 'string', 'max:200'],
            'dueDay' => ['nullable', 'integer', 'between:1,31'],
            'dataAvailable' => ['required', 'boolean'],
            'definitionAgreed' => ['required', 'boolean'],
            'noteRequired' => ['required', 'boolean'],
            'kind' => ['required', Rule::enum(Kind::class)],
            'counted' => ['nullable', 'array'],
            'parts' => ['sometimes', 'array', 'max:100'],
            'parts.*' => ['bail', 'required', 'string', 'max:120'],
            'splits' => ['array', 'max:12'],
            'splits.*' => ['array'],
            'measure' => ['nullable', 'string', 'max:60'],
            'decimals' => ['required', 'integer', 'between:0,8'],
            'scaled' => ['required', 'boolean'],
            'frequency' => ['required', Rule::enum(Frequency::class)],
            'accumulation' => ['required', Rule::enum(Accumulation::class)],
            'formula' => ['nullable', 'string', 'max:2000'],
            'targetFormula' => ['nullable', 'string', 'max:2000'],
            'lowFormula' => ['nullable', 'string', 'max:2000'],
            'highFormula' => ['nullable', 'string', 'max:2000'],
            'gather' => ['nullable', Rule::enum(Gathering::class)],
            'weightedBy' => ['nullable', 'string'],
            'polarity' => ['required', Rule::enum(Polarity::class)],
            'rule' => ['nullable', 'array'],
            'rule.from' => ['required_with:rule', 'string', new MonthRule],
            'rule.reference' => ['required_with:rule', Rule::enum(Reference::class)],
            'rule.measure' => ['required_with:rule', Rule::enum(Deviation::class)],
            'rule.pace' => ['sometimes', Rule::enum(Pace::class)],
            'units.*.rule.pace' => ['sometimes', Rule::enum(Pace::class)],
            'texts' => ['array'],
            'texts.*' => ['nullable', 'string', 'max:4000'],
            'units' => ['required', 'array', 'min:1'],
            'units.*.unit' => ['required', 'string', 'distinct', Rule::exists('units', 'code')],
            'units.*.weight' => ['required', 'numeric', 'between:0,1000000'],
            'units.*.owner' => ['nullable', 'integer', Rule::exists('users', 'id')],
            'units.*.from' => ['nullable', 'string', new MonthRule],
            'units.*.to' => ['nullable', 'string', new MonthRule],
            'units.*.gathered' => ['required', 'boolean'],
            'units.*.rule' => ['nullable', 'array'],
            'units.*.rule.from' => ['required_with:units.*.rule', 'string', new MonthRule],
            'drivers' => ['array'],
            'drivers.*' => ['string'],
            'targets' => ['array'],
            'targets.*' => ['array'],
            'yearTargets' => ['array'],
            'seenTargets' => ['array'],
            'seenTargets.*' => ['array'],
            'seenYearTargets' => ['array'],
            'version' => ['required', 'integer', 'min:0'],
        ];
    }

    /** @return array<string, string> */
    public function messages(): array
    {
        return [
            'code.required' => 'A KPI needs a short code.',
            'code.regex' => 'A code starts with a letter and has only letters, digits, hyphens, points and underscores.',
            'code.max' => 'A code has up to 64 characters.',
            'name.required' => 'A KPI needs a name.',
            'name.max' => 'A name has up to 200 characters.',
            'decimals.*' => 'From 0 to 8 decimals can be shown.',
            'dueDay.*' => 'A due day is a day of the month, from 1 to 31.',
            'measure.max' => 'A unit of measure has up to 60 characters.',
            'purpose.max' => 'Keep the definition to 4,000 characters.',
            'source.max' => 'Keep the source to 200 characters.',
            'department.*' => 'Choose the department that answers for it.',
            'units.required' => 'Choose at least one unit where it is measured.',
            'units.min' => 'Choose at least one unit where it is measured.',
            'units.*.weight.*' => 'A weight is a number from 0 to 1,000,000.',
        ];
    }

    /** @return list<callable(Validator): void> */
    public function after(DefinitionCheck $check, TypedDefinition $definition, FinancialYear $year): array
    {
        return [function (Validator $validator) use ($check, $definition, $year): void {
            if ($validator->errors()->isEmpty()) {
                $this->refuseDuplicates($validator);
            }
            if ($validator->errors()->isNotEmpty()) {
                return;
            }
            /** @var User $user */
            $user = $this->user();
            [$kpi, $typed, $problems] = $definition($this->all(), $this->current(), new NumberSetting($user->locale));
            foreach ($problems as $field => $message) {
                $validator->errors()->add($field, $message);
            }
            if ($validator->errors()->isNotEmpty()) {
                return;
            }
            [$entries, $found] = $check([['replaces' => $this->current()?->code, 'kpi' => $kpi]]);
            foreach ($found[0] ?? [] as $pointer => $problem) {
                $validator->errors()->add($typed->field($pointer), $problem->message);
            }
            if (isset($entries[0])) {
                $this->draft = $this->drafted($validator, $entries[0], $year, new CellText(new NumberSetting($user->locale)));
            }
        }];
    }

    public function draft(): KpiDraft
    {
        return $this->draft ?? throw new \LogicException('A request that passed has a draft.');
    }

    private function current(): ?Kpi
    {
        $kpi = $this->route('kpi');

        return $kpi instanceof Kpi ? $kpi : null;
    }

    /** The database compares codes and names without regard to case, and so do the messages. */
    private function refuseDuplicates(Validator $validator): void
    {
        foreach (['code', 'name'] as $field) {
            $other = Kpi::query()->whereRaw("lower({$field}) = lower(?)", [$this->string($field)->toString()])->where('id', '<>', $this->current()->id ?? 0)->first();
            if ($other !== null) {
                $validator->errors()->add($field, $field === 'code' ? "The code {$other->code} is taken by {$other->name}." : "{$other->name} is already defined, as {$other->code}.");
            }
        }
    }

    private function drafted(Validator $validator, KpiEntry $entry, FinancialYear $year, CellText $text): ?KpiDraft
    {
        $units = array_fill_keys(array_map(fn ($unit): string => $unit->placed->unit, $entry->units), true);
        $read = function (string $field, mixed $typed) use ($validator, $entry, $text): CellValue {
            try {
                return $text->read($entry->definition, is_string($typed) ? $typed : '', true);
            } catch (InvalidArgumentException $problem) {
                $validator->errors()->add($field, $problem->getMessage());

                return new CellValue;
            }
        };
        $seen = function (string $list, string|int ...$path) use ($entry, $text): ?CellValue {
            if (! $this->has($list)) {
                return null;
            }
            $typed = $this->array($list);
            foreach ($path as $key) {
                $typed = is_array($typed) ? $typed[$key] ?? null : null;
            }
            try {
                return $text->read($entry->definition, is_string($typed) ? $typed : '', true);
            } catch (InvalidArgumentException) {
                return new CellValue;
            }
        };
        $targets = [];
        foreach (array_intersect_key($this->array('targets'), $units) as $unit => $periods) {
            foreach ($periods as $key => $typed) {
                $field = "targets.{$unit}.{$key}";
                try {
                    $targets[$unit][Period::parse((string) $key, $entry->definition->frequency)->key()] = [$read($field, $typed), $seen('seenTargets', $unit, $key)];
                } catch (InvalidArgumentException $problem) {
                    // A target of another frequency is left over from before the KPI's was changed.
                    if ($typed !== null && $typed !== '') {
                        $validator->errors()->add($field, $problem->getMessage());
                    }
                }
            }
        }
        $yearTargets = [];
        foreach (array_intersect_key($this->array('yearTargets'), $units) as $unit => $typed) {
            $yearTargets[$unit] = [$read("yearTargets.{$unit}", $typed), $seen('seenYearTargets', $unit)];
        }

        return $validator->errors()->isNotEmpty() ? null : new KpiDraft(
            $entry,
            $targets,
            $yearTargets,
            (int) substr($year->of(Period::parse($this->string('period')->toString()))->key(), 2),
            $this->integer('version'),
        );
    }
}
