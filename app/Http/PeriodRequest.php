<?php

declare(strict_types=1);

namespace App\Http;

use Illuminate\Foundation\Http\FormRequest;
use Illuminate\Validation\Rule;
use Kybernet\Core\Calendar\Period;
use Kybernet\Core\Calendar\Span;

/**
 * A view of a month: `period`, with a `span` where it can be chosen.
 */
final class PeriodRequest extends FormRequest
{
    /** @return array<string, mixed> */
    public function rules(): array
    {
        return [
            'period' => ['required', 'string', new MonthRule],
            'span' => ['sometimes', 'string', Rule::enum(Span::class)],
        ];
    }

    public function period(): Period
    {
        return Period::parse($this->string('period')->toString());
    }

    public function span(): Span
    {
        return Span::from($this->string('span', Span::Month->value)->toString());
    }
}
