<?php

declare(strict_types=1);

namespace App\Briefings;

use App\Http\MonthRule;
use App\Models\Briefing;
use App\Models\Unit;
use Illuminate\Foundation\Http\FormRequest;
use Illuminate\Validation\Rule;
use Kybernet\Core\Calendar\Period;
use Kybernet\Core\Calendar\Span;

/** What a new briefing is called, for whom it is, and what it begins with. */
final class MakeRequest extends FormRequest
{
    /** @return array<string, mixed> */
    public function rules(): array
    {
        return [
            'name' => ['bail', 'required', 'string', 'max:120'],
            'unit' => ['bail', 'required', 'string', 'exists:units,code'],
            'span' => ['bail', 'required', 'string', Rule::enum(Span::class)],
            'beginning' => ['bail', 'required', 'string', Rule::enum(Beginning::class)],
            'period' => ['bail', 'required', 'string', new MonthRule],
            'kpi' => ['bail', 'nullable', 'string', 'max:64'],
            'from' => ['bail', 'nullable', 'string', 'exists:briefings,code'],
        ];
    }

    /** @return array<string, string> */
    public function messages(): array
    {
        return ['name.*' => 'What is the page called?', 'unit.*' => 'Choose for which unit it is.', 'span.*' => 'Choose a span.', 'beginning.*' => 'Choose what it begins with.', 'from.*' => 'That page is not there any more.'];
    }

    public function unit(): Unit
    {
        return Unit::query()->where('code', $this->string('unit')->toString())->firstOrFail();
    }

    public function span(): Span
    {
        return Span::from($this->string('span')->toString());
    }

    public function beginning(): Beginning
    {
        return Beginning::from($this->string('beginning')->toString());
    }

    public function period(): Period
    {
        return Period::parse($this->string('period')->toString());
    }

    public function from(): ?Briefing
    {
        return $this->filled('from') ? Briefing::query()->where('code', $this->string('from')->toString())->first() : null;
    }
}
