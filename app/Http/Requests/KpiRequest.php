<?php

declare(strict_types=1);

namespace App\Http\Requests;

use App\Actions\KpiDraft;
use App\Figures\Organisation;
use App\Models\Kpi;
use App\Models\User;
use App\Support\NumberSetting;
use Brick\Math\BigDecimal;
use Illuminate\Foundation\Http\FormRequest;
use Illuminate\Support\Str;
use Illuminate\Validation\Rule;
use Illuminate\Validation\Validator;
use InvalidArgumentException;
use Kybernet\Core\Calendar\Period;
use Kybernet\Core\Measure\Accumulation;
use Kybernet\Core\Measure\Formula;
use Kybernet\Core\Measure\Operand;
use Kybernet\Core\Status\Deviation;
use Kybernet\Core\Status\Polarity;
use Kybernet\Core\Status\Reference;
use Kybernet\Core\Status\RuleSet;
use OpenApi\Attributes as OA;

/**
 * A definition as the editor sends it. Every problem is told beside its own field, all of them at once.
 */
#[OA\Schema(
    schema: 'KpiInput',
    required: ['code', 'name', 'purpose', 'measure', 'decimals', 'scaled', 'department', 'theme', 'level', 'polarity', 'accumulation', 'rule', 'owner', 'units', 'targets', 'version'],
    properties: [
        new OA\Property(property: 'code', type: 'string', maxLength: 16),
        new OA\Property(property: 'name', type: 'string', maxLength: 120),
        new OA\Property(property: 'purpose', type: 'string', maxLength: 500),
        new OA\Property(property: 'measure', type: 'string', maxLength: 24),
        new OA\Property(property: 'decimals', type: 'integer', maximum: 8, minimum: 0),
        new OA\Property(property: 'scaled', type: 'boolean'),
        new OA\Property(property: 'department', type: 'string'),
        new OA\Property(property: 'theme', type: 'string', nullable: true),
        new OA\Property(property: 'level', type: 'string', enum: ['organisational', 'departmental', 'operational']),
        new OA\Property(property: 'polarity', type: 'string', enum: ['higher', 'lower', 'none']),
        new OA\Property(property: 'accumulation', type: 'string', enum: ['sum', 'mean', 'latest']),
        new OA\Property(property: 'rule', ref: '#/components/schemas/Rule', nullable: true),
        new OA\Property(property: 'owner', type: 'integer', nullable: true),
        new OA\Property(property: 'units', type: 'array', items: new OA\Items(type: 'string')),
        new OA\Property(
            property: 'targets',
            description: 'by unit code and month; a blank removes the target',
            type: 'object',
            additionalProperties: new OA\AdditionalProperties(ref: '#/components/schemas/MonthTargets'),
        ),
        new OA\Property(property: 'version', type: 'integer'),
    ],
)]
#[OA\Schema(
    schema: 'MonthTargets',
    description: 'targets by month, as this user types them',
    type: 'object',
    additionalProperties: new OA\AdditionalProperties(type: 'string'),
)]
final class KpiRequest extends FormRequest
{
    private ?KpiDraft $draft = null;

    protected function prepareForValidation(): void
    {
        $this->merge([
            'code' => Str::upper(trim($this->string('code')->toString())),
            'name' => Str::squish($this->string('name')->toString()),
        ]);
    }

    /** @return array<string, mixed> */
    public function rules(): array
    {
        $current = $this->current();

        return [
            'code' => ['required', 'string', 'max:16', 'regex:/^[A-Z][A-Z0-9-]*$/', Rule::unique('kpis', 'code')->ignore($current)],
            'name' => ['required', 'string', 'max:120'],
            'purpose' => ['nullable', 'string', 'max:500'],
            'measure' => ['nullable', 'string', 'max:24'],
            'decimals' => ['required', 'integer', 'between:0,8'],
            'scaled' => ['required', 'boolean'],
            'department' => ['required', 'string', Rule::exists('units', 'code')],
            'theme' => ['nullable', 'string', 'max:80'],
            'level' => ['required', 'in:organisational,departmental,operational'],
            'polarity' => ['required', Rule::enum(Polarity::class)->only([Polarity::Higher, Polarity::Lower, Polarity::None])],
            'accumulation' => ['required', Rule::enum(Accumulation::class)->only([Accumulation::Sum, Accumulation::Mean, Accumulation::Latest])],
            'rule' => ['nullable', 'array', Rule::prohibitedIf($this->input('polarity') === Polarity::None->value)],
            'rule.from' => ['required_with:rule', 'string', new MonthRule],
            'rule.reference' => ['required_with:rule', Rule::enum(Reference::class)->only([Reference::Target, Reference::None])],
            'rule.measure' => ['required_with:rule', Rule::enum(Deviation::class)->only([Deviation::Percent, Deviation::Level])],
            'rule.green' => ['required_with:rule', 'string', 'max:60'],
            'rule.amber' => ['required_with:rule', 'string', 'max:60'],
            'owner' => ['nullable', 'integer', Rule::exists('users', 'id')],
            'units' => ['required', 'array', 'min:1'],
            'units.*' => ['string', Rule::exists('units', 'code')],
            'targets' => ['array'],
            'targets.*' => ['array'],
            'targets.*.*' => ['nullable', 'string', 'max:60'],
            'version' => ['required', 'integer', 'min:0'],
        ];
    }

    /** @return array<string, string> */
    public function messages(): array
    {
        return [
            'code.required' => 'A KPI needs a short code.',
            'code.regex' => 'A code starts with a letter and has only letters, digits and hyphens.',
            'code.max' => 'A code has up to 16 characters.',
            'code.unique' => 'The code :input is taken by another KPI.',
            'name.required' => 'A KPI needs a name.',
            'name.max' => 'A name has up to 120 characters.',
            'decimals.*' => 'From 0 to 8 decimals can be shown.',
            'measure.max' => 'A unit of measure has up to 24 characters.',
            'purpose.max' => 'Keep the definition to 500 characters.',
            'department.*' => 'Choose the department that answers for it.',
            'rule.prohibited' => 'A KPI that is only tracked has no limits.',
            'rule.green.required_with' => 'Say up to where it is on course.',
            'rule.amber.required_with' => 'Say up to where it is drifting.',
            'units.required' => 'Choose at least one unit where it is measured.',
            'units.min' => 'Choose at least one unit where it is measured.',
        ];
    }

    /** @return list<callable(Validator): void> */
    public function after(Organisation $organisation): array
    {
        return [function (Validator $validator) use ($organisation): void {
            $this->refuseDuplicateName($validator);
            $this->refuseBeyondEditor($validator);
            $this->refuseRenamedOperand($validator);
            if ($validator->errors()->isNotEmpty()) {
                return;
            }
            $department = $organisation->byCode($this->string('department')->toString());
            $units = [];
            foreach ($this->array('units') as $code) {
                $unit = $organisation->byCode($code);
                if ($department === null || $unit === null || ! in_array($unit->id, $organisation->below($department->id), true)) {
                    $validator->errors()->add('units', ($unit->name ?? $code).' is not part of '.($department->name ?? 'the department').'.');

                    continue;
                }
                $units[$code] = $unit->id;
            }
            $rule = $this->rule($validator);
            $targets = $this->targets($validator, $units);
            if ($validator->errors()->isEmpty() && $department !== null) {
                $this->draft = new KpiDraft(
                    $this->safe(['code', 'name', 'decimals', 'scaled', 'level', 'polarity', 'accumulation']) + [
                        'purpose' => $this->string('purpose')->toString(),
                        'measure' => $this->string('measure')->toString(),
                        'department_id' => $department->id,
                    ],
                    $this->filled('theme') ? $this->string('theme')->toString() : null,
                    $rule,
                    $this->filled('owner') ? $this->integer('owner') : null,
                    array_values($units),
                    $targets,
                    $this->integer('version'),
                );
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

    private function refuseBeyondEditor(Validator $validator): void
    {
        $current = $this->current()?->load(['ruleSets', 'measurements.ruleSets']);
        if ($current?->fitsEditor() === false) {
            $validator->errors()->add('code', "The definition of {$current->code} says more than can be changed here; change it in a workbook.");
        }
    }

    /** A formula names KPIs by their codes. */
    private function refuseRenamedOperand(Validator $validator): void
    {
        $current = $this->current();
        if ($current === null || $current->code === $this->string('code')->toString()) {
            return;
        }
        foreach (Kpi::query()->whereNotNull('formula')->get(['name', 'formula']) as $other) {
            if (in_array($current->code, array_map(fn (Operand $operand): string => $operand->code, Formula::parse((string) $other->formula)->operands), true)) {
                $validator->errors()->add('code', "The formula of {$other->name} names it {$current->code}.");
            }
        }
    }

    /** The database compares names without regard to case, and so does the message. */
    private function refuseDuplicateName(Validator $validator): void
    {
        $name = $this->string('name')->toString();
        $other = Kpi::query()->whereRaw('lower(name) = lower(?)', [$name])
            ->where('id', '<>', $this->current()->id ?? 0)->first();
        if ($other !== null) {
            $validator->errors()->add('name', "{$other->name} is already defined, as {$other->code}.");
        }
    }

    private function rule(Validator $validator): ?RuleSet
    {
        if ($this->input('rule') === null) {
            return null;
        }
        $green = $this->figure($validator, 'rule.green');
        $amber = $this->figure($validator, 'rule.amber');
        $polarity = Polarity::from($this->string('polarity')->toString());
        $accumulation = Accumulation::from($this->string('accumulation')->toString());
        $reference = Reference::from($this->string('rule.reference')->toString());
        $measure = Deviation::from($this->string('rule.measure')->toString());
        if ($green === null || $amber === null) {
            return null;
        }
        $problems = RuleSet::problems($polarity, $accumulation, $reference, $measure, $green, $amber);
        foreach ($problems as $member => $problem) {
            $validator->errors()->add($member === 'polarity' ? 'polarity' : "rule.{$member}", $problem);
        }

        return $problems === []
            ? RuleSet::define($polarity, $accumulation, Period::parse($this->string('rule.from')->toString()), $reference, $measure, $green, $amber)
            : null;
    }

    /**
     * @param  array<string, int>  $units
     * @return array<int, array<string, string|null>> by unit and month; null removes
     */
    private function targets(Validator $validator, array $units): array
    {
        $targets = [];
        foreach ($this->array('targets') as $code => $months) {
            foreach (isset($units[$code]) ? $months : [] as $month => $typed) {
                $field = "targets.{$code}.{$month}";
                if (preg_match('/\A(199\d|20\d\d)-(0[1-9]|1[0-2])\z/', (string) $month) !== 1) {
                    $validator->errors()->add($field, 'This is not a month such as 2026-08.');

                    continue;
                }
                $targets[$units[$code]][(string) $month] = $this->figure($validator, $field)?->__toString();
            }
        }

        return $targets;
    }

    private function figure(Validator $validator, string $field): ?BigDecimal
    {
        /** @var User $user */
        $user = $this->user();
        try {
            return (new NumberSetting($user->locale))->read($this->string($field)->toString());
        } catch (InvalidArgumentException $error) {
            $validator->errors()->add($field, $error->getMessage());

            return null;
        }
    }
}
