<?php

declare(strict_types=1);

namespace App\People;

use App\Models\Role;
use Illuminate\Foundation\Http\FormRequest;
use Illuminate\Support\Str;
use Illuminate\Validation\Rule;
use OpenApi\Attributes as OA;

#[OA\Schema(schema: 'PersonInput', required: ['email', 'name', 'role', 'unit', 'administrator'], properties: [
    new OA\Property(property: 'email', type: 'string', maxLength: 190),
    new OA\Property(property: 'name', type: 'string', maxLength: 120),
    new OA\Property(property: 'role', type: 'string', enum: Role::class),
    new OA\Property(property: 'unit', description: 'code of the unit where they belong', type: 'string'),
    new OA\Property(property: 'administrator', type: 'boolean'),
])]
final class PersonRequest extends FormRequest
{
    protected function prepareForValidation(): void
    {
        if (is_string($this->input('name'))) {
            $this->merge(['name' => Str::squish($this->input('name'))]);
        }
    }

    /** @return array<string, mixed> */
    public function rules(): array
    {
        return [
            'email' => ['required', 'string', 'email', 'max:190'],
            'name' => ['required', 'string', 'max:120'],
            'role' => ['required', Rule::enum(Role::class)],
            'unit' => ['required', 'string', Rule::exists('units', 'code')],
            'administrator' => ['required', 'boolean'],
        ];
    }

    /** @return array<string, string> */
    public function messages(): array
    {
        return [
            'email.*' => 'Give an e-mail address such as name@example.org.',
            'name.required' => 'What is the person called?',
            'name.max' => 'A name has up to 120 characters.',
            'role.*' => 'Choose what they come to do.',
            'unit.*' => 'Choose the unit where they belong.',
        ];
    }

    public function wanted(): WantedPerson
    {
        return new WantedPerson(
            $this->string('email')->lower()->toString(),
            $this->string('name')->toString(),
            Role::from($this->string('role')->toString()),
            $this->string('unit')->toString(),
            $this->boolean('administrator'),
        );
    }
}
