<?php

declare(strict_types=1);

namespace App\Logbook;

use Illuminate\Foundation\Http\FormRequest;
use OpenApi\Attributes as OA;

#[OA\Schema(schema: 'ReopenInput', required: ['reason'], properties: [
    new OA\Property(property: 'reason', description: 'kept in the trail of changes', type: 'string', maxLength: 1000),
])]
final class ReopenRequest extends FormRequest
{
    /** @return array<string, mixed> */
    public function rules(): array
    {
        return ['reason' => ['required', 'string', 'max:1000']];
    }

    /** @return array<string, string> */
    public function messages(): array
    {
        return ['reason.required' => 'Say why the month is reopened: the reason is kept.', 'reason.max' => 'Keep the reason to 1,000 characters.'];
    }
}
