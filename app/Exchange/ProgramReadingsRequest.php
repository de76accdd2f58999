<?php

declare(strict_types=1);

namespace App\Exchange;

use Illuminate\Foundation\Http\FormRequest;
use OpenApi\Attributes as OA;

#[OA\Schema(schema: 'ProgramReadings', required: ['readings'], properties: [
    new OA\Property(property: 'readings', type: 'array', maxItems: 1000, minItems: 1, items: new OA\Items(required: ['kpi', 'unit', 'period', 'actual'], properties: [
        new OA\Property(property: 'kpi', description: 'code', type: 'string'),
        new OA\Property(property: 'unit', description: 'code', type: 'string'),
        new OA\Property(property: 'period', description: '2026-08, 2026-W34, FY2026-Q2, FY2026', type: 'string'),
        new OA\Property(property: 'actual', description: 'a figure with a point, as a string, such as "12.5"; of a judged KPI green, amber or red; blank takes the reading back', type: 'string'),
    ], type: 'object')),
])]
final class ProgramReadingsRequest extends FormRequest
{
    /** @return array<string, mixed> */
    public function rules(): array
    {
        return [
            'readings' => ['required', 'array', 'list', 'between:1,1000'],
            'readings.*' => ['required', 'array'],
            'readings.*.kpi' => ['required', 'string', 'max:64'],
            'readings.*.unit' => ['required', 'string', 'max:64'],
            'readings.*.period' => ['required', 'string', 'regex:/\A(FY)?(199\d|20\d\d)(-W?\d\d|-Q[1-4])?\z/'],
            'readings.*.actual' => ['present', 'nullable', 'string', 'regex:/\A(-?\d{1,20}(\.\d{1,8})?|green|amber|red)?\z/'],
        ];
    }

    /** @return array<string, string> */
    public function messages(): array
    {
        return [
            'readings.*.period.*' => 'A period is written 2026-08, 2026-W34, FY2026-Q2 or FY2026.',
            'readings.*.actual.*' => 'A figure is a string with digits and a point, such as "12.5"; of a judged KPI it is green, amber or red.',
            'readings.*.kpi.*' => 'Name the KPI by its code.',
            'readings.*.unit.*' => 'Name the unit by its code.',
            'readings.*' => 'From 1 to 1,000 readings.',
            'readings' => 'From 1 to 1,000 readings.',
        ];
    }

    /** @return non-empty-list<array{kpi: string, unit: string, period: string, actual: string}> */
    public function readings(): array
    {
        $readings = [];
        /** @var array{kpi: string, unit: string, period: string, actual: string|null} $reading */
        foreach ($this->array('readings') as $reading) {
            $readings[] = ['kpi' => $reading['kpi'], 'unit' => $reading['unit'], 'period' => $reading['period'], 'actual' => $reading['actual'] ?? ''];
        }

        return $readings === [] ? throw new \LogicException('Rules ask for a reading.') : $readings;
    }
}
