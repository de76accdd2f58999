<?php

declare(strict_types=1);

namespace App\Sources;

use App\Http\MonthRule;
use Illuminate\Foundation\Http\FormRequest;
use Illuminate\Validation\Rule;
use Kybernet\Core\Calendar\Frequency;
use Kybernet\Core\Calendar\Period;
use OpenApi\Attributes as OA;

#[OA\Schema(schema: 'CountPreviewInput', required: ['counted', 'unit', 'period', 'frequency', 'decimals'], properties: [
    new OA\Property(property: 'counted', ref: '#/components/schemas/Counted'),
    new OA\Property(property: 'splits', description: 'by which it is split, so far as that is said', type: 'array', items: new OA\Items(ref: '#/components/schemas/Split')),
    new OA\Property(property: 'kpi', description: 'code of the KPI, where there is one already', type: 'string', nullable: true),
    new OA\Property(property: 'unit', description: 'code of the unit for which it is shown', type: 'string'),
    new OA\Property(property: 'period', description: 'a month', type: 'string'),
    new OA\Property(property: 'frequency', type: 'string', enum: Frequency::class),
    new OA\Property(property: 'decimals', type: 'integer'),
])]
final class PreviewRequest extends FormRequest
{
    /** @return array<string, mixed> */
    public function rules(): array
    {
        return [
            'counted' => ['required', 'array'],
            'splits' => ['sometimes', 'array', 'max:12'],
            'splits.*' => ['array'],
            'kpi' => ['bail', 'nullable', 'string', 'max:64'],
            'unit' => ['bail', 'required', 'string', Rule::exists('units', 'code')],
            'period' => ['bail', 'required', 'string', new MonthRule],
            'frequency' => ['required', Rule::enum(Frequency::class)],
            'decimals' => ['required', 'integer', 'between:0,8'],
        ];
    }

    public function month(): Period
    {
        return Period::parse($this->string('period')->toString());
    }

    public function frequency(): Frequency
    {
        return Frequency::from($this->string('frequency')->toString());
    }
}
