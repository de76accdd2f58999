<?php

declare(strict_types=1);

namespace App\Briefings;

use App\Http\MonthRule;
use App\Http\WeekRule;
use App\Models\Briefing;
use App\Models\Unit;
use Illuminate\Foundation\Http\FormRequest;
use Illuminate\Support\Facades\Gate;
use Illuminate\Validation\Rule;
use Kybernet\Core\Calendar\Frequency;
use Kybernet\Core\Calendar\Period;
use Kybernet\Core\Calendar\Span;

/** A view of a briefing: the month, and where wanted another unit, another span, one issue, or the draft. */
final class BriefingRequest extends FormRequest
{
    /** @return array<string, mixed> */
    public function rules(): array
    {
        return [
            'period' => ['bail', 'required', 'string', new MonthRule],
            'span' => ['sometimes', 'bail', 'nullable', 'string', Rule::enum(Span::class)],
            'unit' => ['sometimes', 'bail', 'nullable', 'string', 'exists:units,code'],
            'week' => ['sometimes', 'bail', 'nullable', 'string', new WeekRule],
            'issue' => ['sometimes', 'bail', 'nullable', 'integer', 'between:1,2147483647'],
            'draft' => ['sometimes', 'bail', 'nullable', 'in:1'],
        ];
    }

    /** @return array<string, string> */
    public function messages(): array
    {
        return ['unit.exists' => 'There is no such unit.', 'issue.*' => 'An issue has a number.'];
    }

    public function period(): Period
    {
        return Period::parse($this->string('period')->toString());
    }

    public function span(Briefing $briefing): Span
    {
        return Span::from($this->filled('span') ? $this->string('span')->toString() : $briefing->span);
    }

    /** The unit that is looked at, which the person may open. */
    public function unit(Briefing $briefing): Unit
    {
        $unit = $this->filled('unit') ? Unit::query()->where('code', $this->string('unit')->toString())->firstOrFail() : Unit::query()->findOrFail($briefing->unit_id);
        Gate::authorize('view', $unit);

        return $unit;
    }

    public function week(): ?Period
    {
        return $this->filled('week') ? Period::parse($this->string('week')->toString(), Frequency::Week) : null;
    }

    public function issue(): ?int
    {
        return $this->filled('issue') ? $this->integer('issue') : null;
    }

    public function isDraft(): bool
    {
        return $this->filled('draft');
    }
}
