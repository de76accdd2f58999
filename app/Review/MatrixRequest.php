<?php

declare(strict_types=1);

namespace App\Review;

use Illuminate\Foundation\Http\FormRequest;
use Illuminate\Validation\Rule;

/** Which crossing of a matrix, of which KPI, over how many months. */
final class MatrixRequest extends FormRequest
{
    /** @return array<string, mixed> */
    public function rules(): array
    {
        return [
            'crossing' => ['required', Rule::in(MatrixReader::CROSSINGS)],
            'kpi' => ['sometimes', 'nullable', 'string', 'max:40'],
            'masked' => ['sometimes', 'nullable', 'in:1'],
            'months' => ['sometimes', 'integer', Rule::in(MatrixReader::MONTHS)],
        ];
    }

    public function crossing(): string
    {
        return $this->string('crossing')->toString();
    }

    /** Whether units are called by letters. */
    public function isMasked(): bool
    {
        return $this->string('masked')->toString() === '1';
    }

    public function kpi(): string
    {
        return $this->string('kpi')->toString();
    }

    public function months(): int
    {
        return $this->integer('months', MatrixReader::MONTHS[0]);
    }
}
