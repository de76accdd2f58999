<?php

declare(strict_types=1);

namespace App\Organisation;

use Illuminate\Foundation\Http\FormRequest;
use Illuminate\Validation\ValidationException;
use InvalidArgumentException;
use OpenApi\Attributes as OA;

#[OA\Schema(schema: 'ShapesInput', required: ['text'], properties: [
    new OA\Property(property: 'text', description: 'GeoJSON (RFC 7946)', type: 'string', maxLength: GeoShapes::MOST_BYTES),
    new OA\Property(property: 'units', description: 'whose shape each region is, in their order; null leaves it out', type: 'array', items: new OA\Items(type: 'string', nullable: true)),
])]
final class ShapeRequest extends FormRequest
{
    /** @return array<string, mixed> */
    public function rules(): array
    {
        return [
            'text' => ['bail', 'required', 'string'],
            'units' => ['sometimes', 'array', 'max:3000'],
            'units.*' => ['nullable', 'string', 'distinct', 'exists:units,code'],
        ];
    }

    /** @return array<string, string> */
    public function messages(): array
    {
        return ['text.*' => 'Choose a GeoJSON file.', 'units.*.distinct' => 'Two regions are the same unit.', 'units.*' => 'There is no such unit.'];
    }

    /**
     * @return list<array{names: list<string>, shape: array<string, mixed>, points: int}>
     *
     * @throws ValidationException with what is wrong with the file
     */
    public function regions(): array
    {
        try {
            return GeoShapes::read($this->string('text')->toString());
        } catch (InvalidArgumentException $bad) {
            throw ValidationException::withMessages(['text' => $bad->getMessage()]);
        }
    }

    /** @return array<int, string> codes of units by the place of their region */
    public function units(): array
    {
        return array_filter(array_values($this->array('units')), is_string(...));
    }
}
