<?php

declare(strict_types=1);

namespace App\People;

use Illuminate\Foundation\Http\FormRequest;
use OpenApi\Attributes as OA;

#[OA\Schema(schema: 'EntryInput', required: ['link', 'password'], properties: [
    new OA\Property(property: 'link', description: 'the secret of the link', type: 'string'),
    new OA\Property(property: 'password', type: 'string'),
])]
final class EntryRequest extends FormRequest
{
    /** @return array<string, mixed> */
    public function rules(): array
    {
        return ['link' => ['required', 'string', 'max:200'], 'password' => ['required', 'string', 'max:1000']];
    }

    /** @return array<string, string> */
    public function messages(): array
    {
        return ['link.*' => 'Open the link as it was handed over.', 'password.required' => 'Choose a password.'];
    }

    public function link(): string
    {
        return $this->string('link')->toString();
    }

    public function password(): string
    {
        return $this->string('password')->toString();
    }
}
