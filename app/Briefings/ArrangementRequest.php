<?php

declare(strict_types=1);

namespace App\Briefings;

use Illuminate\Foundation\Http\FormRequest;
use Illuminate\Validation\Rule;
use Kybernet\Core\Calendar\Span;

/** For whom a briefing is. */
final class ArrangementRequest extends FormRequest
{
    private const MOST_READERS = 500;

    /** @return array<string, mixed> */
    public function rules(): array
    {
        return [
            'span' => ['bail', 'required', 'string', Rule::enum(Span::class)],
            'audience' => ['bail', 'required', 'string', Rule::in(['unit', 'people'])],
            'readers' => ['bail', 'present', 'array', 'list', 'max:'.self::MOST_READERS],
            'readers.*' => ['bail', 'integer', 'distinct', 'exists:users,id'],
            'version' => ['bail', 'required', 'integer', 'between:0,2147483647'],
        ];
    }

    /** @return array<string, string> */
    public function messages(): array
    {
        return ['readers.*' => 'One of them is not here any more.', 'span.*' => 'Choose a span.', 'audience.*' => 'Choose who reads it.'];
    }

    public function span(): Span
    {
        return Span::from($this->string('span')->toString());
    }

    /** @return list<int> */
    public function readers(): array
    {
        return array_values(array_map(intval(...), array_filter($this->array('readers'), is_numeric(...))));
    }
}
