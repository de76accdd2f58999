<?php

declare(strict_types=1);

namespace App\Trail;

use App\Http\MonthRule;
use Illuminate\Foundation\Http\FormRequest;
use Illuminate\Validation\Rule;

final class ChangesRequest extends FormRequest
{
    /** @return array<string, mixed> */
    public function rules(): array
    {
        return [
            'kpi' => ['nullable', 'string', 'max:64'],
            'unit' => ['nullable', 'string', 'max:64'],
            'person' => ['nullable', 'integer'],
            'subject' => ['nullable', Rule::in(ChangeReader::SUBJECTS)],
            'month' => ['nullable', 'string', new MonthRule],
            'before' => ['nullable', 'integer', 'min:1'],
        ];
    }

    /** @return array<string, string|int> those that were given */
    public function filters(): array
    {
        return array_filter($this->validated(), fn (mixed $filter): bool => $filter !== null);
    }
}
