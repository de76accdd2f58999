<?php

declare(strict_types=1);

namespace App\Logbook;

use App\Http\MonthRule;
use App\Models\User;
use App\Support\NumberSetting;
use Brick\Math\BigDecimal;
use Illuminate\Foundation\Http\FormRequest;
use Illuminate\Validation\Rule;
use Illuminate\Validation\Validator;
use InvalidArgumentException;
use Kybernet\Core\Calendar\Period;
use OpenApi\Attributes as OA;

/** How the targets of a year are to be made, for the KPIs of a unit and the units below it. */
#[OA\Schema(schema: 'TargetPlanInput', required: ['unit', 'period', 'method', 'codes', 'figures', 'weights', 'percent', 'amount', 'decimals'], properties: [
    new OA\Property(property: 'unit', description: 'code', type: 'string'),
    new OA\Property(property: 'period', description: 'any month of the financial year', type: 'string'),
    new OA\Property(property: 'method', type: 'string', enum: ['even', 'shape', 'weights', 'growth']),
    new OA\Property(property: 'codes', description: 'the KPIs; none for all of the unit', type: 'array', items: new OA\Items(type: 'string')),
    new OA\Property(property: 'figures', description: 'year figures as typed, by identity of the KPI in its unit; where there is none, last year\'s is taken', type: 'object', additionalProperties: new OA\AdditionalProperties(type: 'string')),
    new OA\Property(property: 'weights', description: 'as typed, one a month', type: 'array', items: new OA\Items(type: 'string')),
    new OA\Property(property: 'percent', description: 'as typed', type: 'string'),
    new OA\Property(property: 'amount', description: 'as typed', type: 'string'),
    new OA\Property(property: 'decimals', description: 'that targets are rounded to; null for those that each KPI shows', type: 'integer', nullable: true),
])]
final class TargetPlanRequest extends FormRequest
{
    /** @return array<string, mixed> */
    public function rules(): array
    {
        return [
            'unit' => ['required', 'string', Rule::exists('units', 'code')],
            'period' => ['required', 'string', new MonthRule],
            'method' => ['required', 'in:even,shape,weights,growth'],
            'codes' => ['array'],
            'figures' => ['array'],
            'weights' => ['array', 'max:53'],
            'percent' => ['nullable', 'string', 'max:60'],
            'amount' => ['nullable', 'string', 'max:60'],
            'decimals' => ['nullable', 'integer', 'between:0,8'],
        ];
    }

    /** @return list<callable(Validator): void> */
    public function after(): array
    {
        return [function (Validator $validator): void {
            foreach (['figures', 'weights'] as $list) {
                foreach ($this->array($list) as $index => $typed) {
                    $this->check($validator, "{$list}.{$index}", $typed);
                }
            }
            foreach (['percent', 'amount'] as $field) {
                $this->check($validator, $field, $this->input($field));
            }
        }];
    }

    public function month(): Period
    {
        return Period::parse($this->string('period')->toString());
    }

    public function read(mixed $typed): ?BigDecimal
    {
        /** @var User $user */
        $user = $this->user();

        return (new NumberSetting($user->locale))->read(is_string($typed) ? $typed : '');
    }

    private function check(Validator $validator, string $field, mixed $typed): void
    {
        try {
            $this->read($typed);
        } catch (InvalidArgumentException $problem) {
            $validator->errors()->add($field, $problem->getMessage());
        }
    }
}
