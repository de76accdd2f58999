<?php

declare(strict_types=1);

namespace App\Register;

use App\Figures\MeasurementStore;
use App\Models\Unit;
use App\Register\Views\FormulaCheck;
use App\Register\Views\FormulaValue;
use Kybernet\Core\Calendar\Period;
use Kybernet\Core\Measure\Accumulation;
use Kybernet\Core\Measure\Definition;
use Kybernet\Core\Measure\Formula;
use Kybernet\Core\Measure\FormulaProblem;
use Kybernet\Core\Measure\Kind;
use Kybernet\Core\Scorecard;
use Kybernet\Core\Status\Polarity;
use Kybernet\Core\Workbook\Problem;

/**
 * Checks a formula while it is typed, and tries it on the figures of a unit.
 */
final readonly class FormulaReader
{
    private const PERIODS = 6;

    public function __construct(private Scorecard $scorecard, private MeasurementStore $kpis, private DefinitionCheck $check) {}

    public function check(TypedFormula $typed): FormulaCheck
    {
        try {
            $formula = $typed->isTarget ? Formula::ofTarget($typed->text) : Formula::parse($typed->text);
        } catch (FormulaProblem $problem) {
            return new FormulaCheck($problem->getMessage(), $problem->position, []);
        }
        $problem = $this->problem($typed);

        return $problem === null
            ? new FormulaCheck('', null, $this->values($formula, $typed))
            : new FormulaCheck($problem->message, $problem->about === null ? null : $formula->placeOf($problem->about), []);
    }

    /** What the formula is at odds with among all definitions: unknown operands, other frequencies, a circle. */
    private function problem(TypedFormula $typed): ?Problem
    {
        $code = $typed->code;
        $member = $typed->isTarget ? 'targetFormula' : 'formula';
        $isSound = preg_match('/\A[A-Za-z][A-Za-z0-9_.-]*\z/', $code) === 1;
        [, $problems] = ($this->check)([[
            'replaces' => $code,
            'kpi' => [
                'code' => $isSound ? $code : 'formula-being-typed', 'name' => 'The formula that is being typed',
                'kind' => $typed->isTarget ? 'entered' : 'formula', $member => $typed->text, 'frequency' => $typed->frequency->value,
                'accumulation' => $typed->isTarget ? 'mean' : $typed->accumulation->value, 'polarity' => 'none', 'units' => [['unit' => $typed->unit]],
            ],
        ]]);

        return $problems[0]["/{$member}"] ?? null;
    }

    /** @return list<FormulaValue> */
    private function values(Formula $formula, TypedFormula $typed): array
    {
        $month = $typed->month;
        $periods = $this->scorecard->timeline->upTo($this->scorecard->timeline->latest($typed->frequency, $month), self::PERIODS);
        $unit = Unit::query()->where('code', $typed->unit)->firstOrFail();
        $definition = new Definition('', 0, Polarity::None, $typed->isTarget ? Accumulation::Recompute : $typed->accumulation, [], Kind::Formula, $typed->frequency, formula: $formula);
        $figures = $this->kpis->trying($definition, $unit, $this->scorecard->year->beginMonth($periods[0]), $month)->actuals;

        return array_map(fn (Period $period): FormulaValue => new FormulaValue(
            $period->key(),
            $figures->figure($period)?->rounded($typed->decimals)->__toString(),
            $figures->whyNone([$period]) ?? '',
        ), $periods);
    }
}
