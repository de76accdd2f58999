<?php

declare(strict_types=1);

namespace App\Review;

use Illuminate\Foundation\Http\FormRequest;
use Kybernet\Core\Status\Status;
use OpenApi\Attributes as OA;

#[OA\Schema(
    schema: 'CallInput',
    description: 'A status of none takes the call back.',
    required: ['status', 'reason'],
    properties: [
        new OA\Property(property: 'status', type: 'string', enum: ['green', 'amber', 'red', 'none']),
        new OA\Property(property: 'reason', type: 'string', maxLength: 2000),
    ],
)]
final class CallRequest extends FormRequest
{
    /** @return array<string, mixed> */
    public function rules(): array
    {
        return [
            'status' => ['required', 'in:green,amber,red,none'],
            'reason' => ['nullable', 'string', 'max:2000', 'required_unless:status,none'],
        ];
    }

    /** @return array<string, string> */
    public function messages(): array
    {
        return ['reason.required_unless' => 'A call needs its reason.', 'reason.max' => 'A reason holds up to 2,000 characters.'];
    }

    public function status(): ?Status
    {
        return Status::tryFrom($this->string('status')->toString());
    }
}
