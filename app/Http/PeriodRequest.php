<?php

declare(strict_types=1);

namespace App\Http;

use Illuminate\Foundation\Http\FormRequest;
use Illuminate\Validation\Rule;
use Kybernet\Core\Calendar\Frequency;
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
            'week' => ['sometimes', 'bail', 'nullable', 'string', new WeekRule],
        ];
    }

    public function period(): Period
    {
        return Period::parse($this->string('period')->toString());
    }

    /** The week that is looked at, where one is. */
    public function week(): ?Period
    {
        return $this->filled('week') ? Period::parse($this->string('week')->toString(), Frequency::Week) : null;
    }

    public function span(): Span
    {
        return Span::from($this->string('span', Span::Month->value)->toString());
    }
}
