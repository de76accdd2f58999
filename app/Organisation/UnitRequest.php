<?php

declare(strict_types=1);

namespace App\Organisation;

use Illuminate\Foundation\Http\FormRequest;
use Illuminate\Support\Str;
use OpenApi\Attributes as OA;

/** A unit as it is to be, and as it was when it was opened. */
#[OA\Schema(schema: 'UnitPlace', required: ['name', 'kind', 'parent'], properties: [
    new OA\Property(property: 'name', type: 'string', maxLength: 200),
    new OA\Property(property: 'kind', description: 'what it is, such as department', type: 'string', maxLength: 24),
    new OA\Property(property: 'parent', description: 'code of the unit above it; null for the organisation itself', type: 'string', nullable: true),
])]
#[OA\Schema(schema: 'UnitInput', required: ['seen'], allOf: [new OA\Schema(ref: '#/components/schemas/UnitPlace')], properties: [
    new OA\Property(property: 'seen', ref: '#/components/schemas/UnitPlace', description: 'as it stood when it was opened'),
])]
final class UnitRequest extends FormRequest
{
    protected function prepareForValidation(): void
    {
        if (is_string($this->input('name')) && is_string($this->input('kind'))) {
            $this->merge(['name' => Str::squish($this->input('name')), 'kind' => mb_strtolower(Str::squish($this->input('kind')))]);
        }
    }

    /** @return array<string, mixed> */
    public function rules(): array
    {
        return [
            'name' => ['required', 'string', 'max:200'],
            'kind' => ['required', 'string', 'max:24'],
            'parent' => ['nullable', 'string', 'max:64'],
            'seen' => ['required', 'array'],
            'seen.name' => ['required', 'string'],
            'seen.kind' => ['required', 'string'],
            'seen.parent' => ['nullable', 'string'],
        ];
    }

    /** @return array<string, string> */
    public function messages(): array
    {
        return [
            'name.required' => 'What is the unit called?',
            'name.max' => 'A name has up to 200 characters.',
            'kind.*' => 'Say what it is in up to 24 characters, such as department or team.',
        ];
    }

    public function wanted(): WantedUnit
    {
        return $this->unit('');
    }

    public function seen(): WantedUnit
    {
        return $this->unit('seen.');
    }

    private function unit(string $at): WantedUnit
    {
        return new WantedUnit($this->string("{$at}name")->toString(), $this->string("{$at}kind")->toString(), $this->filled("{$at}parent") ? $this->string("{$at}parent")->toString() : null);
    }
}
