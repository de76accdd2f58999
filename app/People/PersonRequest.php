<?php

declare(strict_types=1);

namespace App\People;

use App\Models\Role;
use App\Organisation\Organisation;
use Illuminate\Foundation\Http\FormRequest;
use Illuminate\Support\Str;
use Illuminate\Validation\Rule;
use OpenApi\Attributes as OA;

#[OA\Schema(schema: 'PersonInput', required: ['email', 'name', 'roles'], properties: [
    new OA\Property(property: 'email', type: 'string', maxLength: 190),
    new OA\Property(property: 'name', type: 'string', maxLength: 120),
    new OA\Property(property: 'roles', type: 'array', maxItems: 20, minItems: 1, items: new OA\Items(ref: '#/components/schemas/HeldRole')),
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
            'roles' => ['required', 'array', 'list', 'between:1,20'],
            'roles.*' => ['required', 'array'],
            'roles.*.role' => ['required', Rule::enum(Role::class)],
            'roles.*.unit' => ['required', 'string', Rule::in(array_keys($this->organisation()->parents()))],
        ];
    }

    /** @return array<string, string> */
    public function messages(): array
    {
        return [
            'email.*' => 'Give an e-mail address such as name@example.org.',
            'name.required' => 'What is the person called?',
            'name.max' => 'A name has up to 120 characters.',
            'roles.*.role.*' => 'Choose what they come to do.',
            'roles.*.unit.*' => 'Choose the unit for which they do it.',
            'roles.*' => 'Choose what they come to do.',
        ];
    }

    /** @return non-empty-list<array{Role, string}> each once; an administrator is one for the whole organisation */
    private function roles(): array
    {
        $roles = [];
        /** @var array{role: string, unit: string} $held */
        foreach ($this->array('roles') as $held) {
            $role = Role::from($held['role']);
            $unit = $role === Role::Administrator ? (string) array_key_first($this->organisation()->parents()) : $held['unit'];
            $roles["{$role->value} {$unit}"] = [$role, $unit];
        }

        return $roles === [] ? throw new \LogicException('Rules ask for a role.') : array_values($roles);
    }

    private function organisation(): Organisation
    {
        return app(Organisation::class);
    }

    public function wanted(): WantedPerson
    {
        return new WantedPerson(
            $this->string('email')->lower()->toString(),
            $this->string('name')->toString(),
            $this->roles(),
        );
    }
}
