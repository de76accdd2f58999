<?php

declare(strict_types=1);

namespace App\Settings;

use Illuminate\Foundation\Http\FormRequest;
use OpenApi\Attributes as OA;

#[OA\Schema(schema: 'MailServerInput', required: ['host', 'port', 'user', 'password', 'from', 'version'], properties: [
    new OA\Property(property: 'host', description: 'blank where nobody is to be written to', type: 'string', maxLength: 253),
    new OA\Property(property: 'port', type: 'integer', maximum: 65535, minimum: 1),
    new OA\Property(property: 'user', type: 'string', maxLength: 190),
    new OA\Property(property: 'password', description: 'null: the one that is kept stays', type: 'string', maxLength: 1000, nullable: true),
    new OA\Property(property: 'from', type: 'string', maxLength: 190),
    new OA\Property(property: 'version', description: 'of the settings that were changed', type: 'integer'),
])]
final class MailRequest extends FormRequest
{
    /** @return array<string, mixed> */
    public function rules(): array
    {
        return [
            'host' => ['bail', 'present', 'nullable', 'string', 'max:253', 'regex:/\A[A-Za-z0-9._:-]*\z/'],
            'port' => ['required', 'integer', 'between:1,65535'],
            'user' => ['present', 'nullable', 'string', 'max:190'],
            'password' => ['present', 'nullable', 'string', 'max:1000'],
            'from' => ['bail', 'required_with:host', 'nullable', 'string', 'email', 'max:190'],
            'version' => ['required', 'integer', 'between:1,2147483647'],
        ];
    }

    /** @return array<string, string> */
    public function messages(): array
    {
        return ['host.*' => 'The name of a server, such as smtp.example.org.', 'port.*' => 'A port from 1 to 65535.', 'user.*' => 'Up to 190 characters.', 'password.*' => 'Up to 1,000 characters.', 'from.*' => 'The address from which it comes.'];
    }

    public function version(): int
    {
        return $this->integer('version');
    }

    /** @return array{host: string, port: int, user: string, from: string} */
    public function wanted(): array
    {
        return ['host' => $this->string('host')->toString(), 'port' => $this->integer('port'), 'user' => $this->string('user')->toString(), 'from' => $this->string('from')->toString()];
    }

    /** Null where the one that is kept stays. */
    public function password(): ?string
    {
        return $this->input('password') === null ? null : $this->string('password')->toString();
    }
}
