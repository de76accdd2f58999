<?php

declare(strict_types=1);

namespace App\Briefings;

use App\Http\MonthRule;
use Illuminate\Foundation\Http\FormRequest;
use Illuminate\Validation\Rule;
use Illuminate\Validation\Validator;
use Kybernet\Core\Calendar\Period;
use Kybernet\Core\Calendar\Span;

/** What is put together to one PDF. */
final class PackRequest extends FormRequest
{
    public const SCORECARD = '@scorecard';

    public const EXCEPTIONS = '@exceptions';

    private const MOST = 12;

    /** @return array<string, mixed> */
    public function rules(): array
    {
        return [
            'period' => ['bail', 'required', 'string', new MonthRule],
            'span' => ['sometimes', 'bail', 'nullable', 'string', Rule::enum(Span::class)],
            'unit' => ['bail', 'required', 'string', 'exists:units,code'],
            'title' => ['bail', 'required', 'string', 'max:120'],
            'parts' => ['bail', 'required', 'string', 'max:1000'],
            'paper' => ['sometimes', 'bail', 'nullable', 'string', 'in:a4,a3'],
        ];
    }

    /** @return array<string, string> */
    public function messages(): array
    {
        return ['title.*' => 'What stands on the first page?', 'parts.*' => 'Choose what is in it.', 'unit.*' => 'There is no such unit.'];
    }

    /** @return list<\Closure(Validator): void> */
    public function after(): array
    {
        return [function (Validator $validator): void {
            if ($validator->errors()->isEmpty() && count($this->parts()) > self::MOST) {
                $validator->errors()->add('parts', 'Up to '.self::MOST.' parts.');
            }
        }];
    }

    public function period(): Period
    {
        return Period::parse($this->string('period')->toString());
    }

    public function span(): Span
    {
        return Span::from($this->filled('span') ? $this->string('span')->toString() : Span::Month->value);
    }

    /** @return list<string> */
    public function parts(): array
    {
        return array_values(array_unique(array_filter(explode(',', $this->string('parts')->toString()), fn (string $part): bool => $part !== '')));
    }

    /** @return 'a4'|'a3' */
    public function paper(): string
    {
        return $this->string('paper')->toString() === 'a3' ? 'a3' : 'a4';
    }
}
