<?php

declare(strict_types=1);

namespace App\People;

use App\Support\Currencies;
use App\Support\NumberSetting;
use DateTimeZone;
use Illuminate\Foundation\Http\FormRequest;
use Illuminate\Support\Str;
use Illuminate\Validation\Rule;
use Illuminate\Validation\Validator;
use OpenApi\Attributes as OA;

#[OA\Schema(schema: 'BeginningInput', required: ['link', 'organisation', 'yearStartMonth', 'timeZone', 'currency', 'locale', 'name', 'email', 'password'], properties: [
    new OA\Property(property: 'link', description: 'the secret of the link', type: 'string'),
    new OA\Property(property: 'organisation', type: 'string', maxLength: 200),
    new OA\Property(property: 'yearStartMonth', type: 'integer', maximum: 12, minimum: 1),
    new OA\Property(property: 'timeZone', description: 'IANA name', type: 'string'),
    new OA\Property(property: 'currency', description: 'ISO 4217', type: 'string'),
    new OA\Property(property: 'locale', type: 'string', enum: NumberSetting::LOCALES),
    new OA\Property(property: 'name', type: 'string', maxLength: 120),
    new OA\Property(property: 'email', type: 'string', maxLength: 190),
    new OA\Property(property: 'password', type: 'string'),
])]
final class BeginningRequest extends FormRequest
{
    protected function prepareForValidation(): void
    {
        foreach (['organisation', 'name'] as $field) {
            if (is_string($this->input($field))) {
                $this->merge([$field => Str::squish($this->input($field))]);
            }
        }
    }

    /** @return array<string, mixed> */
    public function rules(): array
    {
        return [
            'link' => ['required', 'string', 'max:200'],
            'organisation' => ['required', 'string', 'max:200'],
            'yearStartMonth' => ['required', 'integer', 'between:1,12'],
            'timeZone' => ['required', 'string', Rule::in(DateTimeZone::listIdentifiers())],
            'currency' => ['required', 'string', Rule::in(Currencies::all())],
            'locale' => ['required', Rule::in(NumberSetting::LOCALES)],
            'name' => ['required', 'string', 'max:120'],
            'email' => ['required', 'string', 'email', 'max:190'],
            'password' => ['required', 'string', 'max:1000'],
        ];
    }

    /** @return array<string, string> */
    public function messages(): array
    {
        return [
            'link.*' => 'Open the link as it was printed.',
            'organisation.required' => 'What is the organisation called?',
            'organisation.max' => 'A name has up to 200 characters.',
            'name.required' => 'What are you called?',
            'name.max' => 'A name has up to 120 characters.',
            'email.*' => 'Give an e-mail address such as name@example.org.',
            'password.required' => 'Choose a password.',
            'timeZone.*' => 'Choose a time zone.',
            'currency.*' => 'Choose a currency.',
        ];
    }

    /** @return list<callable(Validator): void> */
    public function after(): array
    {
        return [function (Validator $validator): void {
            if ($validator->errors()->hasAny(['password', 'name', 'email', 'organisation'])) {
                return;
            }
            $problem = PasswordRules::problem($this->string('password')->toString(), [$this->string('name')->toString(), $this->string('email')->toString(), $this->string('organisation')->toString()]);
            if ($problem !== '') {
                $validator->errors()->add('password', $problem);
            }
        }];
    }

    public function beginning(): Beginning
    {
        $organisation = $this->string('organisation')->toString();

        return new Beginning(
            $this->string('link')->toString(),
            $organisation,
            self::code($organisation),
            max(1, min(12, $this->integer('yearStartMonth'))),
            $this->string('timeZone')->toString(),
            $this->string('currency')->toString(),
            $this->string('locale')->toString(),
            $this->string('name')->toString(),
            $this->string('email')->lower()->toString(),
            $this->string('password')->toString(),
        );
    }

    /** The first letters of its words: `HC` for Harbour Clinics. */
    private static function code(string $organisation): string
    {
        $words = Str::of($organisation)->ascii()->upper()->split('/[^A-Z0-9]+/', -1, PREG_SPLIT_NO_EMPTY)->all();
        $code = count($words) > 1 ? implode('', array_map(fn (string $word): string => $word[0], $words)) : substr($words[0] ?? 'ORG', 0, 8);

        return preg_match('/\A[A-Z]/', $code) === 1 ? substr($code, 0, 12) : 'ORG';
    }
}
