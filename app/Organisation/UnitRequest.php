<?php

declare(strict_types=1);

namespace App\Organisation;

use Illuminate\Foundation\Http\FormRequest;
use Illuminate\Support\Str;
use Illuminate\Validation\Rule;
use Illuminate\Validation\Validator;
use Kybernet\Core\Status\RollUpRule;
use OpenApi\Attributes as OA;

/** A unit as it is to be, and as it was when it was opened. */
#[OA\Schema(schema: 'UnitPlace', required: ['code', 'name', 'kind', 'parent', 'weight', 'rollUp', 'rollUpGreen', 'rollUpOther'], properties: [
    new OA\Property(property: 'code', type: 'string', maxLength: 64),
    new OA\Property(property: 'name', type: 'string', maxLength: 200),
    new OA\Property(property: 'kind', description: 'what it is, such as department', type: 'string', maxLength: 24),
    new OA\Property(property: 'parent', description: 'code of the unit above it; null for the organisation itself', type: 'string', nullable: true),
    new OA\Property(property: 'weight', description: 'in the roll-up of the unit above', type: 'string'),
    new OA\Property(property: 'rollUp', description: 'how its own status follows from those under it', type: 'string', enum: RollUpRule::class),
    new OA\Property(property: 'rollUpGreen', description: 'the cut for green: a score, or % of the weight', type: 'string'),
    new OA\Property(property: 'rollUpOther', description: 'the cut for amber, or under share % of the weight for red', type: 'string'),
])]
#[OA\Schema(schema: 'UnitInput', required: ['seen'], allOf: [new OA\Schema(ref: '#/components/schemas/UnitPlace')], properties: [
    new OA\Property(property: 'seen', ref: '#/components/schemas/UnitPlace', description: 'as it stood when it was opened'),
])]
final class UnitRequest extends FormRequest
{
    private const FIGURE = 'regex:/\A\d{1,6}(\.\d{1,8})?\z/';

    protected function prepareForValidation(): void
    {
        if (is_string($this->input('name')) && is_string($this->input('kind'))) {
            $this->merge(['name' => Str::squish($this->input('name')), 'kind' => mb_strtolower(Str::squish($this->input('kind')))]);
        }
    }

    /** @return array<string, mixed> */
    public function rules(): array
    {
        return [
            'code' => ['required', 'string', 'regex:/\A[A-Za-z][A-Za-z0-9_.-]{0,63}\z/'],
            'name' => ['required', 'string', 'max:200'],
            'kind' => ['required', 'string', 'max:24'],
            'parent' => ['nullable', 'string', 'max:64'],
            'weight' => ['required', 'string', self::FIGURE],
            'rollUp' => ['required', Rule::enum(RollUpRule::class)],
            'rollUpGreen' => ['required', 'string', self::FIGURE],
            'rollUpOther' => ['required', 'string', self::FIGURE],
            'seen' => ['required', 'array'],
            'seen.code' => ['required', 'string'],
            'seen.name' => ['required', 'string'],
            'seen.kind' => ['required', 'string'],
            'seen.parent' => ['nullable', 'string'],
            'seen.weight' => ['required', 'string', self::FIGURE],
            'seen.rollUp' => ['required', 'string'],
            'seen.rollUpGreen' => ['required', 'string', self::FIGURE],
            'seen.rollUpOther' => ['required', 'string', self::FIGURE],
        ];
    }

    /** @return array<string, string> */
    public function messages(): array
    {
        return [
            'code.*' => 'A code starts with a letter and has only letters, digits, hyphens, points and underscores.',
            'name.required' => 'What is the unit called?',
            'name.max' => 'A name has up to 200 characters.',
            'kind.*' => 'Say what it is in up to 24 characters, such as department or team.',
            'weight.*' => 'A figure such as 1 or 2.5; 0 counts for nothing.',
            'rollUpGreen.*' => 'A figure such as 1.5.',
            'rollUpOther.*' => 'A figure such as 0.5.',
        ];
    }

    /** @return list<callable(Validator): void> */
    public function after(): array
    {
        return [function (Validator $validator): void {
            $problem = $validator->errors()->isNotEmpty() ? '' : RollUpCuts::problem(RollUpRule::from($this->string('rollUp')->toString()), $this->string('rollUpGreen')->toString(), $this->string('rollUpOther')->toString());
            if ($problem !== '') {
                $validator->errors()->add('rollUpGreen', $problem);
            }
        }];
    }

    public function wanted(): WantedUnit
    {
        return $this->unit('');
    }

    public function seen(): WantedUnit
    {
        return $this->unit('seen.');
    }

    private function unit(string $at): WantedUnit
    {
        $text = fn (string $field): string => $this->string("{$at}{$field}")->toString();

        return new WantedUnit($text('code'), $text('name'), $text('kind'), $this->filled("{$at}parent") ? $text('parent') : null, WantedUnit::plain($text('weight')), [$text('rollUp'), WantedUnit::plain($text('rollUpGreen')), WantedUnit::plain($text('rollUpOther'))]);
    }
}
