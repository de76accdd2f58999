<?php

declare(strict_types=1);

namespace App\Register;

use App\Http\MonthRule;
use Illuminate\Foundation\Http\FormRequest;
use Illuminate\Validation\Rule;
use Kybernet\Core\Calendar\Period;
use OpenApi\Attributes as OA;

/** Common fields of many KPIs at once. What is left out stays as it is. */
#[OA\Schema(schema: 'BulkInput', required: ['codes'], properties: [
    new OA\Property(property: 'codes', type: 'array', items: new OA\Items(type: 'string')),
    new OA\Property(property: 'theme', description: 'its name; blank takes it away', type: 'string'),
    new OA\Property(property: 'objective', description: 'its code; blank takes it away', type: 'string'),
    new OA\Property(property: 'level', type: 'string', enum: ['organisational', 'departmental', 'operational']),
    new OA\Property(property: 'department', type: 'string'),
    new OA\Property(property: 'owner', description: 'who enters the figures in every unit', type: 'integer'),
    new OA\Property(property: 'source', type: 'string'),
    new OA\Property(property: 'dueDay', type: 'integer'),
    new OA\Property(property: 'noteRequired', type: 'boolean'),
    new OA\Property(property: 'dataAvailable', type: 'boolean'),
    new OA\Property(property: 'definitionAgreed', type: 'boolean'),
    new OA\Property(property: 'until', description: 'the last month in which they are measured; history stays', type: 'string'),
    new OA\Property(property: 'moveFrom', description: 'code of the unit in which they were measured so far', type: 'string'),
    new OA\Property(property: 'moveTo', description: 'code of the unit in which they are measured from a month on', type: 'string'),
    new OA\Property(property: 'moveAt', description: 'that month', type: 'string'),
])]
final class BulkRequest extends FormRequest
{
    private const COLUMNS = [
        'level' => 'level', 'source' => 'source', 'dueDay' => 'due_day', 'noteRequired' => 'note_required', 'dataAvailable' => 'data_available',
        'definitionAgreed' => 'definition_agreed', 'theme' => 'theme', 'objective' => 'objective', 'department' => 'department', 'owner' => 'owner',
    ];

    /** @return array<string, mixed> */
    public function rules(): array
    {
        return [
            'codes' => ['required', 'array', 'min:1'],
            'codes.*' => ['string', Rule::exists('kpis', 'code')],
            'theme' => ['sometimes', 'nullable', 'string', 'max:80'],
            'objective' => ['sometimes', 'nullable', 'string', Rule::exists('objectives', 'code')],
            'level' => ['sometimes', 'in:organisational,departmental,operational'],
            'department' => ['sometimes', 'string', Rule::exists('units', 'code')],
            'owner' => ['sometimes', 'nullable', 'integer', Rule::exists('users', 'id')],
            'source' => ['sometimes', 'nullable', 'string', 'max:200'],
            'dueDay' => ['sometimes', 'nullable', 'integer', 'between:1,31'],
            'noteRequired' => ['sometimes', 'boolean'],
            'dataAvailable' => ['sometimes', 'boolean'],
            'definitionAgreed' => ['sometimes', 'boolean'],
            'until' => ['sometimes', 'string', new MonthRule],
            'moveFrom' => ['required_with:moveTo', 'string', Rule::exists('units', 'code')],
            'moveTo' => ['required_with:moveFrom', 'string', 'different:moveFrom', Rule::exists('units', 'code')],
            'moveAt' => ['required_with:moveTo', 'string', new MonthRule],
        ];
    }

    /** @return array<string, string> */
    public function messages(): array
    {
        return [
            'codes.*' => 'Choose the KPIs that are to change.',
            'dueDay.*' => 'A due day is a day of the month, from 1 to 31.',
            'moveTo.different' => 'Choose another unit.',
        ];
    }

    /** @return list<string> */
    public function codes(): array
    {
        return array_values($this->array('codes'));
    }

    /** @return array<string, mixed> by column, and theme, objective, department and owner by what the person chose */
    public function changes(): array
    {
        $changes = [];
        foreach (array_intersect_key($this->validated(), self::COLUMNS) as $member => $value) {
            $changes[self::COLUMNS[$member]] = $member === 'source' ? (string) $value : $value;
        }

        return $changes;
    }

    public function until(): ?Period
    {
        return $this->filled('until') ? Period::parse($this->string('until')->toString()) : null;
    }

    /** @return array{string, string, Period}|null from which unit to which, and the first month there */
    public function move(): ?array
    {
        return $this->filled('moveTo')
            ? [$this->string('moveFrom')->toString(), $this->string('moveTo')->toString(), Period::parse($this->string('moveAt')->toString())]
            : null;
    }
}
