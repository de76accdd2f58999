<?php

declare(strict_types=1);

namespace App\Organisation;

use Illuminate\Foundation\Http\FormRequest;
use Illuminate\Support\Str;
use OpenApi\Attributes as OA;

/** A list of units that is typed or pasted. */
#[OA\Schema(schema: 'UnitListInput', required: ['list', 'below'], properties: [
    new OA\Property(property: 'list', description: 'a unit a line; what stands further in belongs to what stands above it', type: 'string', maxLength: 200_000),
    new OA\Property(property: 'below', description: 'what units below departments are called', type: 'string', maxLength: 24),
])]
final class UnitListRequest extends FormRequest
{
    /** Blanks at the beginning of a line say where it belongs. */
    protected function prepareForValidation(): void
    {
        if (is_string($this->input('below'))) {
            $this->merge(['below' => Str::of($this->input('below'))->squish()->lower()->toString()]);
        }
    }

    /** @return array<string, mixed> */
    public function rules(): array
    {
        return ['list' => ['nullable', 'string', 'max:200000'], 'below' => ['required', 'string', 'max:24']];
    }

    /** @return array<string, string> */
    public function messages(): array
    {
        return ['list.max' => 'The list is too long: up to 200,000 characters.', 'below.*' => 'Say what they are called, such as team or site.'];
    }

    public function text(): string
    {
        return $this->string('list')->toString();
    }

    public function below(): string
    {
        return $this->string('below')->toString();
    }
}
