<?php

declare(strict_types=1);

namespace App\Settings;

use App\Organisation\RollUpCuts;
use App\Support\Currencies;
use App\Support\NumberSetting;
use DateTimeZone;
use Illuminate\Foundation\Http\FormRequest;
use Illuminate\Support\Str;
use Illuminate\Validation\Rule;
use Illuminate\Validation\Validator;
use Kybernet\Core\Status\RollUpRule;
use OpenApi\Attributes as OA;

#[OA\Schema(schema: 'SettingsInput', required: ['name', 'yearStartMonth', 'timeZone', 'currency', 'locale', 'needsSecondFactor', 'sessionHours', 'sessionDays', 'trailYears', 'lawYears', 'accent', 'callers', 'kpi', 'rollUp', 'rollUpGreen', 'rollUpOther', 'version'], properties: [
    new OA\Property(property: 'name', type: 'string', maxLength: 200),
    new OA\Property(property: 'yearStartMonth', type: 'integer', maximum: 12, minimum: 1),
    new OA\Property(property: 'timeZone', type: 'string'),
    new OA\Property(property: 'currency', type: 'string'),
    new OA\Property(property: 'locale', type: 'string', enum: NumberSetting::LOCALES),
    new OA\Property(property: 'needsSecondFactor', type: 'boolean'),
    new OA\Property(property: 'sessionHours', type: 'integer', maximum: 720, minimum: 1),
    new OA\Property(property: 'sessionDays', type: 'integer', maximum: 365, minimum: 1),
    new OA\Property(property: 'trailYears', type: 'integer', maximum: 99, minimum: 1, nullable: true),
    new OA\Property(property: 'lawYears', type: 'integer', maximum: 99, minimum: 0),
    new OA\Property(property: 'accent', type: 'string', pattern: '^#[0-9a-f]{6}$', nullable: true),
    new OA\Property(property: 'callers', type: 'string', enum: ['analyst', 'head', 'nobody']),
    new OA\Property(property: 'kpi', ref: '#/components/schemas/KpiDefaults'),
    new OA\Property(property: 'rollUp', type: 'string', enum: RollUpRule::class),
    new OA\Property(property: 'rollUpGreen', type: 'string'),
    new OA\Property(property: 'rollUpOther', type: 'string'),
    new OA\Property(property: 'version', type: 'integer'),
])]
final class SettingsRequest extends FormRequest
{
    private const FIGURE = ['regex:/\A\d{1,6}(\.\d{1,8})?\z/'];

    protected function prepareForValidation(): void
    {
        if (is_string($this->input('name'))) {
            $this->merge(['name' => Str::squish($this->input('name'))]);
        }
    }

    /** @return array<string, mixed> */
    public function rules(): array
    {
        return [
            'name' => ['required', 'string', 'max:200'],
            'yearStartMonth' => ['required', 'integer', 'between:1,12'],
            'timeZone' => ['required', 'string', Rule::in(DateTimeZone::listIdentifiers())],
            'currency' => ['required', 'string', Rule::in(Currencies::all())],
            'locale' => ['required', Rule::in(NumberSetting::LOCALES)],
            'needsSecondFactor' => ['required', 'boolean'],
            'sessionHours' => ['required', 'integer', 'between:1,720'],
            'sessionDays' => ['required', 'integer', 'between:1,365'],
            'trailYears' => ['present', 'nullable', 'integer', 'between:1,99'],
            'lawYears' => ['required', 'integer', 'between:0,99'],
            'accent' => ['bail', 'present', 'nullable', 'string', 'regex:/\A#[0-9a-f]{6}\z/'],
            'callers' => ['required', 'string', Rule::in(['analyst', 'head', 'nobody'])],
            'kpi' => ['required', 'array'],
            'kpi.green' => ['required', 'string', ...self::FIGURE],
            'kpi.amber' => ['required', 'string', ...self::FIGURE],
            'kpi.dueDay' => ['nullable', 'integer', 'between:1,31'],
            'kpi.noteRequired' => ['required', 'boolean'],
            'kpi.materiality' => ['nullable', 'string', ...self::FIGURE],
            'kpi.textGreen' => ['nullable', 'string', 'max:300'],
            'kpi.textAmber' => ['nullable', 'string', 'max:300'],
            'kpi.textRed' => ['nullable', 'string', 'max:300'],
            'rollUp' => ['required', Rule::enum(RollUpRule::class)],
            'rollUpGreen' => ['required', 'string', ...self::FIGURE],
            'rollUpOther' => ['required', 'string', ...self::FIGURE],
            'version' => ['required', 'integer', 'between:1,2147483647'],
        ];
    }

    /** @return array<string, string> */
    public function messages(): array
    {
        return [
            'name.required' => 'What is the organisation called?', 'name.*' => 'A name has up to 200 characters.',
            'timeZone.*' => 'Choose a time zone.', 'currency.*' => 'Choose a currency.', 'sessionHours.*' => 'From 1 to 720 hours.', 'sessionDays.*' => 'From 1 to 365 days.', 'trailYears.*' => 'From 1 to 99 years, or none.', 'lawYears.*' => 'From 0 to 99 years.', 'accent.*' => 'A colour such as #0b4a6f, or none.', 'callers.*' => 'Choose who may.',
            'kpi.green.*' => 'A figure such as 0 or 2.5.', 'kpi.amber.*' => 'A figure such as 5.', 'kpi.dueDay.*' => 'A day from 1 to 31, or none.', 'kpi.materiality.*' => 'A figure, or none.',
            'kpi.*.max' => 'Up to 300 characters.', 'rollUpGreen.*' => 'A figure such as 1.5.', 'rollUpOther.*' => 'A figure such as 0.5.',
        ];
    }

    /** @return list<callable(Validator): void> */
    public function after(): array
    {
        return [function (Validator $validator): void {
            if ($validator->errors()->isNotEmpty()) {
                return;
            }
            if ($this->float('kpi.amber') < $this->float('kpi.green')) {
                $validator->errors()->add('kpi.amber', 'Drifting reaches at least as far as on course.');
            }
            if ($this->input('trailYears') !== null && $this->integer('trailYears') < $this->integer('lawYears')) {
                $validator->errors()->add('trailYears', "The law wants {$this->integer('lawYears')} years here.");
            }
            $accent = $this->input('accent');
            if (is_string($accent) && ! Accent::isLegible($accent)) {
                $validator->errors()->add('accent', 'This colour is too pale to be read on paper.');
            }
            $problem = RollUpCuts::problem(RollUpRule::from($this->string('rollUp')->toString()), $this->string('rollUpGreen')->toString(), $this->string('rollUpOther')->toString());
            if ($problem !== '') {
                $validator->errors()->add('rollUpGreen', $problem);
            }
        }];
    }

    public function version(): int
    {
        return $this->integer('version');
    }

    public function wanted(): OrganisationSettings
    {
        $callers = $this->string('callers')->toString();

        return new OrganisationSettings(
            $this->string('name')->toString(),
            max(1, min(12, $this->integer('yearStartMonth'))),
            $this->string('timeZone')->toString(),
            $this->string('currency')->toString(),
            $this->string('locale')->toString(),
            $this->boolean('needsSecondFactor'),
            $this->integer('sessionHours'),
            $this->integer('sessionDays'),
            $this->input('trailYears') === null ? null : $this->integer('trailYears'),
            $this->integer('lawYears'),
            $this->input('accent') === null ? null : $this->string('accent')->toString(),
            $callers === 'analyst' || $callers === 'nobody' ? $callers : 'head',
            new KpiDefaults(
                $this->string('kpi.green')->toString(),
                $this->string('kpi.amber')->toString(),
                $this->input('kpi.dueDay') === null ? null : $this->integer('kpi.dueDay'),
                $this->boolean('kpi.noteRequired'),
                $this->string('kpi.materiality')->toString(),
                $this->string('kpi.textGreen')->toString(),
                $this->string('kpi.textAmber')->toString(),
                $this->string('kpi.textRed')->toString(),
            ),
            ['rule' => $this->string('rollUp')->toString(), 'green' => $this->string('rollUpGreen')->toString(), 'other' => $this->string('rollUpOther')->toString()],
        );
    }
}
