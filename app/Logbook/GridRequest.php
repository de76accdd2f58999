<?php

declare(strict_types=1);

namespace App\Logbook;

use App\Http\MonthRule;
use Illuminate\Foundation\Http\FormRequest;
use Illuminate\Validation\Rule;
use Kybernet\Core\Calendar\Frequency;
use Kybernet\Core\Calendar\Period;

/**
 * A view of the year grid: the year of `period`, a `layer`, and what stands across.
 */
final class GridRequest extends FormRequest
{
    /** @return array<string, mixed> */
    public function rules(): array
    {
        return [
            'period' => ['required', 'string', new MonthRule],
            'layer' => ['required', Rule::in(YearGridReader::LAYERS)],
            'columns' => ['required', 'in:month,week'],
        ];
    }

    public function period(): Period
    {
        return Period::parse($this->string('period')->toString());
    }

    public function layer(): string
    {
        return $this->string('layer')->toString();
    }

    public function columns(): Frequency
    {
        return Frequency::from($this->string('columns')->toString());
    }
}
