<?php

declare(strict_types=1);

namespace App\Review;

use App\Http\CellRequest;
use OpenApi\Attributes as OA;

#[OA\Schema(
    schema: 'ActionInput',
    required: ['what', 'who', 'due', 'state', 'outcome', 'version'],
    properties: [
        new OA\Property(property: 'what', type: 'string', maxLength: 2000),
        new OA\Property(property: 'who', type: 'string', maxLength: 120),
        new OA\Property(property: 'due', description: 'a day, 2026-09-30', type: 'string'),
        new OA\Property(property: 'state', type: 'string', enum: ['open', 'done', 'dropped']),
        new OA\Property(property: 'outcome', description: 'what came of it, or why it was dropped', type: 'string', maxLength: 2000),
        new OA\Property(property: 'version', description: 'the version that was seen; 0 for a new one', type: 'integer'),
    ],
)]
final class ActionRequest extends CellRequest
{
    /** @return array<string, mixed> */
    public function rules(): array
    {
        return [
            'what' => ['required', 'string', 'max:2000'],
            'who' => ['required', 'string', 'max:120'],
            'due' => ['bail', 'required', 'string', 'date_format:Y-m-d', 'after_or_equal:1990-01-01', 'before_or_equal:2100-12-31'],
            'state' => ['required', 'in:open,done,dropped'],
            'outcome' => ['nullable', 'string', 'max:2000', 'required_if:state,dropped'],
            'version' => ['required', 'integer', 'min:0'],
        ];
    }

    /** @return array<string, string> */
    public function messages(): array
    {
        return [
            'what.required' => 'Say what is to be done.',
            'who.required' => 'Say who does it.',
            'due.required' => 'Give the day by which it is done.',
            'due.date_format' => 'This is not a day such as 2026-09-30.',
            'due.after_or_equal' => 'Days from 1990 to 2100 can be used.',
            'due.before_or_equal' => 'Days from 1990 to 2100 can be used.',
            'outcome.required_if' => 'Say why it is dropped.',
            'what.max' => 'An action holds up to 2,000 characters.',
            'who.max' => 'A name holds up to 120 characters.',
            'outcome.max' => 'An outcome holds up to 2,000 characters.',
        ];
    }

    public function draft(): ActionDraft
    {
        return new ActionDraft(
            $this->string('what')->trim()->toString(),
            $this->string('who')->trim()->toString(),
            $this->string('due')->toString(),
            $this->string('state')->toString(),
            $this->string('outcome')->trim()->toString(),
            $this->integer('version'),
        );
    }
}
