<?php

declare(strict_types=1);

namespace App\Http\Requests;

use Illuminate\Foundation\Http\FormRequest;
use OpenApi\Attributes as OA;

#[OA\Schema(
    schema: 'NoteInput',
    required: ['text', 'version'],
    properties: [
        new OA\Property(property: 'text', description: 'blank removes the note', type: 'string', maxLength: 2000),
        new OA\Property(property: 'version', description: 'the version that was seen; 0 when there was none', type: 'integer'),
    ],
)]
final class NoteRequest extends FormRequest
{
    /** @return array<string, mixed> */
    public function rules(): array
    {
        return [
            'text' => ['present', 'nullable', 'string', 'max:2000'],
            'version' => ['required', 'integer', 'min:0'],
        ];
    }

    /** @return array<string, string> */
    public function messages(): array
    {
        return ['text.max' => 'A note holds up to 2,000 characters.'];
    }
}
