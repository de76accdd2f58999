<?php

declare(strict_types=1);

namespace App\Compare;

use App\Http\MonthRule;
use Illuminate\Foundation\Http\FormRequest;
use Kybernet\Core\Calendar\Period;

/** Which units are compared, on which KPIs, and against which other month. */
final class CompareRequest extends FormRequest
{
    /** @return array<string, mixed> */
    public function rules(): array
    {
        return [
            'kind' => ['sometimes', 'nullable', 'string', 'max:24'],
            'kpis' => ['sometimes', 'nullable', 'string', 'max:400'],
            'kpi' => ['sometimes', 'nullable', 'string', 'max:40'],
            'against' => ['sometimes', 'nullable', 'bail', 'string', new MonthRule],
            'masked' => ['sometimes', 'nullable', 'in:1'],
        ];
    }

    /** Blank for the kind with the most units that measure something. */
    public function kind(): string
    {
        return $this->string('kind')->toString();
    }

    /** @return list<string> codes; none for the first that most of the units share */
    public function kpis(): array
    {
        return array_values(array_filter(explode(',', $this->string('kpis')->toString()), fn (string $code): bool => $code !== ''));
    }

    /** Code of one KPI: whose ranks are asked for, or that is to be among the first. */
    public function kpi(): string
    {
        return $this->string('kpi')->toString();
    }

    public function against(): ?Period
    {
        $against = $this->string('against')->toString();

        return $against === '' ? null : Period::parse($against);
    }

    public function isMasked(): bool
    {
        return $this->string('masked')->toString() === '1';
    }
}
