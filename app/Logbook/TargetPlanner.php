<?php

declare(strict_types=1);

namespace App\Logbook;

use App\Figures\Closures;
use App\Figures\EntryRules;
use App\Figures\Lock;
use App\Figures\MeasurementFacts;
use App\Figures\MeasurementStore;
use App\Logbook\Views\TargetPlanPage;
use App\Logbook\Views\TargetPlanRow;
use App\Models\Unit;
use App\Models\User;
use App\Organisation\Organisation;
use App\Organisation\Rights;
use App\Support\NumberSetting;
use Brick\Math\BigDecimal;
use InvalidArgumentException;
use Kybernet\Core\Calendar\Period;
use Kybernet\Core\Measure\Accumulation;
use Kybernet\Core\Measure\Exact;
use Kybernet\Core\Measure\Goal;
use Kybernet\Core\Measure\Kind;
use Kybernet\Core\Measure\PlanMethod;
use Kybernet\Core\Measure\TargetFrom;
use Kybernet\Core\Measure\TargetPlan;
use Kybernet\Core\Scorecard;
use Kybernet\Core\Status\Polarity;

/**
 * Lays out targets as they would be planned. Closed periods keep theirs; the rest is spread over the others.
 */
final readonly class TargetPlanner
{
    public function __construct(
        private Scorecard $scorecard,
        private MeasurementStore $kpis,
        private Organisation $organisation,
        private EntryRules $rules,
        private Closures $closures,
        private Rights $rights,
    ) {}

    public function plan(WantedPlan $wanted, User $user): TargetPlanPage
    {
        $unit = Unit::query()->where('code', $wanted->unit)->firstOrFail();
        $months = $this->scorecard->year->months($wanted->month);
        $place = array_flip($this->organisation->below($unit->id));
        $kpis = array_values(array_filter(
            $this->rights->seen($user, $this->kpis->inUnits(array_keys($place), $months[0]->plus(-24), $months[11])),
            fn (MeasurementFacts $kpi): bool => $wanted->codes === [] ? $kpi->isTyped() && $kpi->measurement->definition->kind !== Kind::Judged : in_array($kpi->code, $wanted->codes, true),
        ));
        usort($kpis, fn (MeasurementFacts $one, MeasurementFacts $other): int => $place[$one->unitId] <=> $place[$other->unitId]);

        return new TargetPlanPage(
            $this->scorecard->year->label($wanted->month),
            array_map(fn (MeasurementFacts $kpi): TargetPlanRow => $this->row($kpi, $wanted, new NumberSetting($user->locale), $user), $kpis),
        );
    }

    private function row(MeasurementFacts $kpi, WantedPlan $wanted, NumberSetting $setting, User $user): TargetPlanRow
    {
        $measurement = $kpi->measurement;
        $definition = $measurement->definition;
        $year = $this->scorecard->year->of($wanted->month);
        $periods = $this->scorecard->timeline->yearPeriods($definition->frequency, $measurement->tenure, $year);
        $prior = array_map(fn (Period $period): ?Exact => $period->yearEarlier() === null ? null : $measurement->actuals->figure($period->yearEarlier()), $periods);
        $known = Exact::known($prior);
        $rule = $definition->accumulation->ofTargets();
        $lastYear = $known === [] ? null : $rule->combine($known);
        $figure = $wanted->figures[$kpi->id] ?? $lastYear?->rounded(max(0, $definition->decimals));
        $goals = array_map($measurement->targets->goal(...), $periods);
        $current = array_map(fn (?Goal $goal): ?BigDecimal => $goal?->lower()->toDecimal(), $goals);
        $kept = array_filter($current, fn (?BigDecimal $target, int $at): bool => $target !== null && $this->closures->holds($kpi->unitId, $periods[$at]), ARRAY_FILTER_USE_BOTH);
        $plan = null;
        $problem = $this->problem($kpi, $periods, $user);
        if ($problem === '') {
            try {
                $plan = $this->made($wanted, $figure, $prior, $kept, $rule, $wanted->decimals ?? $definition->decimals);
            } catch (InvalidArgumentException $impossible) {
                $problem = $impossible->getMessage();
            }
        }
        $planned = $plan->targets ?? array_fill(0, count($periods), null);
        $made = array_values(array_map(Exact::of(...), array_filter($planned, fn (?BigDecimal $target): bool => $target !== null)));
        $write = fn (?BigDecimal $target): string => $setting->write($target, $kpi->scaled ? 0 : $definition->decimals);

        return new TargetPlanRow(
            $kpi->id,
            $kpi->code,
            $kpi->name,
            $definition->measure,
            $this->organisation->unit($kpi->unitId)->name,
            array_map(fn (Period $period): string => $period->key(), $periods),
            array_map($write, $planned),
            // What is worked out is only shown, so it is rounded as everywhere else.
            array_map(fn (?Goal $goal): string => $write($goal?->from === TargetFrom::Set ? $goal->lower()->toDecimal() : $goal?->lower()->rounded(max(0, $definition->decimals))), $goals),
            array_map(fn (?Exact $figure): string => $write($figure?->rounded(max(0, $definition->decimals))), $prior),
            array_map(fn (int $at): bool => isset($kept[$at]), array_keys($periods)),
            $write($figure),
            $write($lastYear?->rounded(max(0, $definition->decimals))),
            $made === [] ? '' : $write($rule->combine($made)->toDecimal()),
            $plan === null || $plan->remainder->isZero() ? '' : $setting->write($plan->remainder),
            $plan === null || $plan->remainderAt === null ? null : $periods[$plan->remainderAt]->key(),
            $problem,
        );
    }

    /** @param  list<Period>  $periods */
    private function problem(MeasurementFacts $kpi, array $periods, User $user): string
    {
        if ($periods === []) {
            return 'It is not measured in this year.';
        }
        if ($kpi->measurement->definition->polarity === Polarity::Band) {
            return 'A band is planned in the editor or the year grid.';
        }
        if ($kpi->measurement->definition->targetFormula !== null) {
            return "Its targets are worked out: {$kpi->measurement->definition->targetFormula->words()}. One that is set in the year grid goes before.";
        }
        $locks = array_map(fn (Period $period): ?Lock => $this->rules->targetLock($kpi, $period, $user), $periods);

        return in_array(null, $locks, true) ? '' : ucfirst($locks[0]->words($kpi)).'.';
    }

    /**
     * @param  list<Exact|null>  $prior
     * @param  array<int, BigDecimal>  $kept
     * @param  int<0, max>  $decimals
     *
     * @throws InvalidArgumentException with the reason why nothing can be planned
     */
    private function made(WantedPlan $wanted, ?BigDecimal $figure, array $prior, array $kept, Accumulation $rule, int $decimals): TargetPlan
    {
        if ($wanted->method === PlanMethod::Growth) {
            return TargetPlan::grown($prior, $wanted->percent, $wanted->amount, $kept, $decimals);
        }
        if ($figure === null) {
            throw new InvalidArgumentException('There is no figure for the year yet: type one.');
        }
        $weights = match ($wanted->method) {
            PlanMethod::Shape => array_map(fn (?Exact $last): Exact => $last ?? throw new InvalidArgumentException('Last year has gaps, so it has no shape to follow.'), $prior),
            PlanMethod::Weights => array_map(fn (int $at): Exact => Exact::of($wanted->weights[$at] ?? BigDecimal::zero()), array_keys($prior)),
            PlanMethod::Even => array_map(fn (): Exact => Exact::of(1), $prior),
        };
        if ($weights === []) {
            throw new InvalidArgumentException('It is not measured in this year.');
        }

        return TargetPlan::spread($figure, $weights, $kept, $rule, $decimals);
    }
}
