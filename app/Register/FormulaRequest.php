<?php

declare(strict_types=1);

namespace App\Register;

use App\Http\MonthRule;
use App\Models\User;
use App\Organisation\Organisation;
use App\Organisation\Rights;
use Illuminate\Foundation\Http\FormRequest;
use Illuminate\Validation\Rule;
use Kybernet\Core\Calendar\Frequency;
use Kybernet\Core\Calendar\Period;
use Kybernet\Core\Measure\Accumulation;
use OpenApi\Attributes as OA;

/** A formula that is being typed. */
#[OA\Schema(schema: 'FormulaInput', required: ['code', 'formula', 'isTarget', 'unit', 'frequency', 'accumulation', 'decimals'], properties: [
    new OA\Property(property: 'code', description: 'of the KPI that it defines', type: 'string'),
    new OA\Property(property: 'formula', type: 'string'),
    new OA\Property(property: 'isTarget', description: 'whether it gives targets, and not figures', type: 'boolean'),
    new OA\Property(property: 'unit', description: 'code of the unit whose figures it is tried on', type: 'string'),
    new OA\Property(property: 'frequency', type: 'string', enum: Frequency::class),
    new OA\Property(property: 'accumulation', type: 'string'),
    new OA\Property(property: 'decimals', type: 'integer'),
])]
final class FormulaRequest extends FormRequest
{
    /** Figures are read for it, so the unit must be of the part of the tree for which the person defines. */
    public function authorize(Organisation $organisation, Rights $rights): bool
    {
        $unit = is_string($this->input('unit')) ? $organisation->byCode($this->input('unit')) : null;
        $user = $this->user();

        return $unit === null || ($user instanceof User && $rights->analyses($user, $unit->id));
    }

    /** @return array<string, mixed> */
    public function rules(): array
    {
        return [
            'period' => ['required', 'string', new MonthRule],
            'code' => ['nullable', 'string', 'max:64'],
            'formula' => ['nullable', 'string', 'max:2000'],
            'isTarget' => ['required', 'boolean'],
            'unit' => ['required', 'string', 'exists:units,code'],
            'frequency' => ['required', Rule::enum(Frequency::class)],
            'accumulation' => ['required', Rule::enum(Accumulation::class)],
            'decimals' => ['required', 'integer', 'between:0,8'],
        ];
    }

    public function typed(): TypedFormula
    {
        return new TypedFormula(
            $this->string('code')->trim()->toString(),
            $this->string('formula')->toString(),
            $this->boolean('isTarget'),
            $this->string('unit')->toString(),
            Period::parse($this->string('period')->toString()),
            Frequency::from($this->string('frequency')->toString()),
            Accumulation::from($this->string('accumulation')->toString()),
            max(0, $this->integer('decimals')),
        );
    }
}
