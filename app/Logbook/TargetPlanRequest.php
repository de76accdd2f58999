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
use Kybernet\Core\Measure\PlanMethod;
use OpenApi\Attributes as OA;

/** How the targets of a year are to be made, for the KPIs of a unit and the units below it. */
#[OA\Schema(schema: 'TargetPlanInput', required: ['unit', 'period', 'method', 'codes', 'figures', 'weights', 'percent', 'amount', 'decimals'], properties: [
    new OA\Property(property: 'unit', description: 'code', type: 'string'),
    new OA\Property(property: 'period', description: 'any month of the financial year', type: 'string'),
    new OA\Property(property: 'method', type: 'string', enum: PlanMethod::class),
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
            'method' => ['required', Rule::enum(PlanMethod::class)],
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

    public function wanted(): WantedPlan
    {
        return new WantedPlan(
            $this->string('unit')->toString(),
            Period::parse($this->string('period')->toString()),
            PlanMethod::from($this->string('method')->toString()),
            array_values(array_filter($this->array('codes'), is_string(...))),
            array_filter(array_map($this->read(...), $this->array('figures')), fn (?BigDecimal $figure): bool => $figure !== null),
            array_values(array_map($this->read(...), $this->array('weights'))),
            $this->read($this->input('percent')) ?? BigDecimal::zero(),
            $this->read($this->input('amount')) ?? BigDecimal::zero(),
            $this->input('decimals') === null ? null : max(0, $this->integer('decimals')),
        );
    }

    private function read(mixed $typed): ?BigDecimal
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
