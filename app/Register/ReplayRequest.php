<?php

declare(strict_types=1);

namespace App\Register;

use App\Figures\CellText;
use App\Figures\CellValue;
use App\Http\MonthRule;
use App\Models\Kpi;
use App\Models\User;
use App\Organisation\Organisation;
use App\Organisation\Rights;
use App\Support\NumberSetting;
use Illuminate\Foundation\Http\FormRequest;
use Illuminate\Validation\Rule;
use Illuminate\Validation\Validator;
use InvalidArgumentException;
use Kybernet\Core\Calendar\Period;
use Kybernet\Core\Measure\Accumulation;
use Kybernet\Core\Measure\Definition;
use Kybernet\Core\Measure\Formula;
use Kybernet\Core\Measure\FormulaProblem;
use Kybernet\Core\Measure\TargetFormula;
use Kybernet\Core\Status\Polarity;
use Kybernet\Core\Status\RuleSet;
use Kybernet\Core\Workbook\Problems;
use Kybernet\Core\Workbook\Row;
use Kybernet\Core\Workbook\RulesReader;
use OpenApi\Attributes as OA;

/** A rule that is being typed, for a KPI that is there already. */
#[OA\Schema(schema: 'ReplayInput', required: ['code', 'unit', 'polarity', 'accumulation', 'rule', 'targets', 'targetFormula', 'lowFormula', 'highFormula'], properties: [
    new OA\Property(property: 'code', type: 'string'),
    new OA\Property(property: 'unit', description: 'code of the unit whose figures are replayed', type: 'string'),
    new OA\Property(property: 'polarity', type: 'string', enum: Polarity::class),
    new OA\Property(property: 'accumulation', type: 'string', enum: Accumulation::class),
    new OA\Property(property: 'rule', ref: '#/components/schemas/Rule', nullable: true),
    new OA\Property(property: 'targets', ref: '#/components/schemas/PeriodTargets', description: 'as typed for the unit, by period'),
    new OA\Property(property: 'targetFormula', type: 'string'),
    new OA\Property(property: 'lowFormula', type: 'string'),
    new OA\Property(property: 'highFormula', type: 'string'),
])]
final class ReplayRequest extends FormRequest
{
    private ?RuleSet $rule = null;

    /** @var array<string, CellValue> */
    private array $targets = [];

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
            'code' => ['required', 'string', 'exists:kpis,code'],
            'unit' => ['required', 'string', 'exists:units,code'],
            'polarity' => ['required', Rule::enum(Polarity::class)],
            'accumulation' => ['required', Rule::enum(Accumulation::class)],
            'rule' => ['nullable', 'array'],
            'targets' => ['array'],
            'targetFormula' => ['nullable', 'string', 'max:2000'],
            'lowFormula' => ['nullable', 'string', 'max:2000'],
            'highFormula' => ['nullable', 'string', 'max:2000'],
        ];
    }

    /** @return list<callable(Validator): void> */
    public function after(): array
    {
        return [function (Validator $validator): void {
            if ($validator->errors()->isNotEmpty()) {
                return;
            }
            $this->readRule($validator);
            $this->readTargets($validator);
        }];
    }

    public function typed(): TypedRule
    {
        return new TypedRule(
            $this->string('code')->toString(),
            $this->string('unit')->toString(),
            Period::parse($this->string('period')->toString()),
            $this->polarity(),
            $this->accumulation(),
            $this->rule,
            $this->targets,
            $this->targetFormula(),
        );
    }

    private function polarity(): Polarity
    {
        return Polarity::from($this->string('polarity')->toString());
    }

    private function accumulation(): Accumulation
    {
        return Accumulation::from($this->string('accumulation')->toString());
    }

    /** What is wrong with a formula is told beside its own field; until then it gives no targets. */
    private function targetFormula(): ?TargetFormula
    {
        $formulas = [];
        foreach ($this->polarity() === Polarity::Band ? ['lowFormula', 'highFormula'] : ['targetFormula'] as $field) {
            try {
                $formulas[] = Formula::ofTarget($this->string($field)->toString());
            } catch (FormulaProblem) {
                return null;
            }
        }

        return new TargetFormula($formulas[0], $formulas[1] ?? null);
    }

    private function setting(): NumberSetting
    {
        /** @var User $user */
        $user = $this->user();

        return new NumberSetting($user->locale);
    }

    private function readRule(Validator $validator): void
    {
        if (! is_array($this->input('rule')) || $this->polarity() === Polarity::None) {
            return;
        }
        $problems = new Problems;
        $typed = TypedDefinition::rule($this->array('rule'), 'rule', $this->polarity()->value, function (string $field, mixed $text) use ($validator): ?string {
            try {
                return $this->setting()->read(is_string($text) ? $text : '')?->__toString();
            } catch (InvalidArgumentException $problem) {
                $validator->errors()->add($field, $problem->getMessage());

                return null;
            }
        });
        $rules = RulesReader::read([new Row([...$typed, 'from' => '0001-01'], '/rule', $problems)], $this->polarity(), $this->accumulation());
        foreach ($problems->all() as $problem) {
            $validator->errors()->add(str_replace('/', '.', ltrim($problem->pointer === '/rule' ? '/rule/green' : $problem->pointer, '/')), $problem->message);
        }
        $this->rule = $rules[0] ?? null;
    }

    private function readTargets(Validator $validator): void
    {
        $kpi = Kpi::query()->where('code', $this->string('code')->toString())->firstOrFail();
        $shape = new Definition($kpi->measure, max(0, $kpi->decimals), $this->polarity(), $this->accumulation(), []);
        $text = new CellText($this->setting());
        foreach ($this->array('targets') as $key => $typed) {
            try {
                $this->targets[(string) $key] = $text->read($shape, is_string($typed) ? $typed : '', true);
            } catch (InvalidArgumentException $problem) {
                $validator->errors()->add("targets.{$this->string('unit')->toString()}.{$key}", $problem->getMessage());
            }
        }
    }
}
