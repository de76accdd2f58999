<?php

declare(strict_types=1);

namespace App\Http;

use App\Tables\TableWriter;
use Illuminate\Foundation\Http\FormRequest;
use Illuminate\Validation\Rule;
use Kybernet\Core\Calendar\Period;

/** A file: `format` is its kind, with `-long` where each reading is to have a row of its own. */
final class ExportRequest extends FormRequest
{
    /** @return array<string, mixed> */
    public function rules(): array
    {
        return [
            'format' => ['required', Rule::in([...TableWriter::FORMATS, ...array_map(fn (string $format): string => "{$format}-long", TableWriter::FORMATS), 'json'])],
            'period' => ['sometimes', 'string', new MonthRule],
            'kpi' => ['sometimes', 'nullable', 'string', 'max:40'],
        ];
    }

    public function kind(): string
    {
        return str_replace('-long', '', $this->string('format')->toString());
    }

    public function isLong(): bool
    {
        return str_ends_with($this->string('format')->toString(), '-long');
    }

    /** Code of the KPI alone that is wanted; blank for all. */
    public function kpi(): string
    {
        return $this->string('kpi')->toString();
    }

    public function period(): Period
    {
        return Period::parse($this->string('period')->toString());
    }
}
