<?php

declare(strict_types=1);

namespace App\Import;

use Illuminate\Foundation\Http\FormRequest;
use Illuminate\Validation\Rule;
use OpenApi\Attributes as OA;

#[OA\Schema(schema: 'MappingInput', required: ['roles'], properties: [
    new OA\Property(property: 'roles', description: 'what each column holds, from the first on', type: 'array', items: new OA\Items(
        type: 'string',
        enum: ['', 'kpi', 'unit', 'period', 'layer', 'actual', 'target', 'low', 'high', 'note', 'column'],
    )),
])]
final class MappingRequest extends FormRequest
{
    /** @return array<string, mixed> */
    public function rules(): array
    {
        return ['roles' => ['required', 'array'], 'roles.*' => ['nullable', Rule::in([...Mapping::ROLES, 'column'])]];
    }

    /** @return list<string> */
    public function roles(): array
    {
        return array_values(array_map(strval(...), $this->array('roles')));
    }
}
