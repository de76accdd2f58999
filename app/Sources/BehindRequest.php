<?php

declare(strict_types=1);

namespace App\Sources;

use App\Http\MonthRule;
use App\Tables\TableWriter;
use Illuminate\Foundation\Http\FormRequest;
use Illuminate\Validation\Rule;
use Kybernet\Core\Calendar\Period;
use Kybernet\Core\Calendar\Span;

/** What is wanted of the records behind a figure. */
final class BehindRequest extends FormRequest
{
    private const MOST_PAGES = 100_000;

    /** @return array<string, mixed> */
    public function rules(): array
    {
        return [
            'period' => ['bail', 'required', 'string', new MonthRule],
            'span' => ['bail', 'sometimes', 'string', Rule::enum(Span::class)],
            'sort' => ['bail', 'sometimes', 'nullable', 'string', 'max:64'],
            'down' => ['sometimes', 'boolean'],
            'search' => ['bail', 'sometimes', 'nullable', 'string', 'max:200'],
            'page' => ['sometimes', 'integer', 'between:1,'.self::MOST_PAGES],
            'format' => ['sometimes', Rule::in(TableWriter::FORMATS)],
            'by' => ['bail', 'sometimes', 'nullable', 'string', 'max:64'],
            'goal' => ['bail', 'sometimes', 'nullable', 'string', 'max:40'],
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

    public function wanted(): WantedRecords
    {
        return new WantedRecords($this->string('sort')->toString(), $this->boolean('down'), $this->string('search')->trim()->toString(), max(1, $this->integer('page', 1)));
    }

    /** The field by which rows are made; `steps` for the steps of each record. */
    public function by(): string
    {
        return $this->string('by')->toString();
    }

    public function goal(): string
    {
        return $this->string('goal')->trim()->toString();
    }

    public function kind(): string
    {
        return $this->string('format', 'csv')->toString();
    }
}
