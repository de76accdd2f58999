<?php

declare(strict_types=1);

namespace App\Register;

use Illuminate\Foundation\Http\FormRequest;
use Illuminate\Validation\Rule;
use OpenApi\Attributes as OA;

/** Both lists as they are to be, in order. */
#[OA\Schema(schema: 'ListsInput', required: ['themes', 'objectives'], properties: [
    new OA\Property(property: 'themes', type: 'array', items: new OA\Items(ref: '#/components/schemas/ListItem')),
    new OA\Property(property: 'objectives', type: 'array', items: new OA\Items(ref: '#/components/schemas/ListItem')),
])]
final class ListsRequest extends FormRequest
{
    /** @return array<string, mixed> */
    public function rules(): array
    {
        return [
            'themes' => ['present', 'array'],
            'themes.*.id' => ['nullable', 'integer', Rule::exists('themes', 'id')],
            'themes.*.name' => ['required', 'string', 'max:80', 'distinct:ignore_case'],
            'objectives' => ['present', 'array'],
            'objectives.*.id' => ['nullable', 'integer', Rule::exists('objectives', 'id')],
            'objectives.*.code' => ['required', 'string', 'max:64', 'regex:/^[A-Za-z][A-Za-z0-9_.-]*$/', 'distinct:ignore_case'],
            'objectives.*.name' => ['required', 'string', 'max:200', 'distinct:ignore_case'],
        ];
    }

    /** @return array<string, string> */
    public function messages(): array
    {
        return [
            '*.*.name.required' => 'A name is missing.',
            '*.*.name.distinct' => 'This name stands here twice.',
            'objectives.*.code.required' => 'An objective needs a short code.',
            'objectives.*.code.regex' => 'A code starts with a letter and has only letters, digits, hyphens, points and underscores.',
            'objectives.*.code.distinct' => 'This code stands here twice.',
        ];
    }

    /** @return list<array{id: int|null, code: string, name: string}> */
    public function items(string $list): array
    {
        return array_values(array_map(fn (array $item): array => [
            'id' => $item['id'] ?? null,
            'code' => trim($item['code'] ?? ''),
            'name' => trim($item['name']),
        ], $this->array($list)));
    }
}
