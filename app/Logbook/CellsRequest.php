<?php

declare(strict_types=1);

namespace App\Logbook;

use Illuminate\Foundation\Http\FormRequest;
use Illuminate\Validation\Validator;
use OpenApi\Attributes as OA;

#[OA\Schema(
    schema: 'CellsInput',
    required: ['layer', 'cells'],
    properties: [
        new OA\Property(property: 'layer', type: 'string', enum: ['actual', 'target']),
        new OA\Property(property: 'cells', type: 'array', items: new OA\Items(
            required: ['measurement', 'period', 'typed', 'was'],
            properties: [
                new OA\Property(property: 'measurement', description: 'identity of the KPI in its unit', type: 'integer'),
                new OA\Property(property: 'period', type: 'string'),
                new OA\Property(property: 'typed', description: 'blank empties the cell', type: 'string'),
                new OA\Property(property: 'was', description: 'what stood there, so that nobody overwrites what they have not seen', type: 'string'),
                new OA\Property(property: 'reason', description: 'that a colour is given with, where it has none yet', type: 'string', maxLength: 2000),
            ],
            type: 'object',
        )),
    ],
)]
final class CellsRequest extends FormRequest
{
    public const MOST_CELLS = 30_000;

    private const MOST_CHARACTERS = 60;

    private const MOST_REASON = 2000;

    /** @return array<string, mixed> */
    public function rules(): array
    {
        return ['layer' => ['required', 'in:actual,target'], 'cells' => ['required', 'array', 'max:'.self::MOST_CELLS]];
    }

    /** @return array<string, string> */
    public function messages(): array
    {
        return ['cells.max' => 'Up to '.number_format(self::MOST_CELLS).' cells can be saved at once.'];
    }

    /** @return list<callable(Validator): void> */
    public function after(): array
    {
        // Thousands of cells: the framework's rules for each of their members would take longer than saving them.
        return [function (Validator $validator): void {
            foreach ($this->array('cells') as $index => $cell) {
                if (! is_array($cell) || ! is_int($cell['measurement'] ?? null) || ! is_string($cell['period'] ?? null)
                    // The framework reads blanks as null.
                    || ! is_string($cell['typed'] ?? '') || ! is_string($cell['was'] ?? '') || ! is_string($cell['reason'] ?? '')) {
                    $validator->errors()->add("cells.{$index}", 'This is not a cell.');

                    return;
                }
            }
        }];
    }

    /** @return list<TypedCell> */
    public function cells(): array
    {
        return array_values(array_map(fn (array $cell): TypedCell => new TypedCell(
            $cell['measurement'],
            $cell['period'],
            mb_substr($cell['typed'] ?? '', 0, self::MOST_CHARACTERS),
            $cell['was'] ?? '',
            mb_substr(trim($cell['reason'] ?? ''), 0, self::MOST_REASON),
        ), $this->array('cells')));
    }

    public function isTarget(): bool
    {
        return $this->input('layer') === 'target';
    }
}
