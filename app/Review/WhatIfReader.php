<?php

declare(strict_types=1);

namespace App\Review;

use App\Figures\CellText;
use App\Figures\CellValue;
use App\Figures\MeasurementFacts;
use App\Figures\MeasurementStore;
use App\Models;
use App\Review\Views\TriedLimits;
use App\Review\Views\WhatIf;
use App\Support\NumberSetting;
use App\Views\ReplayView;
use Illuminate\Validation\ValidationException;
use Kybernet\Core\Calendar\Period;
use Kybernet\Core\Measure\Exact;
use Kybernet\Core\Measure\Goal;
use Kybernet\Core\Measure\MovedTargets;
use Kybernet\Core\Measure\SameTargets;
use Kybernet\Core\Measure\TargetFrom;
use Kybernet\Core\Measure\Targets;
use Kybernet\Core\Replay;
use Kybernet\Core\Scorecard;
use Kybernet\Core\Status\Polarity;
use Kybernet\Core\Status\RuleSet;
use Kybernet\Core\Workbook\Problems;
use Kybernet\Core\Workbook\Row;
use Kybernet\Core\Workbook\RulesReader;
use Kybernet\Core\Workbook\WorkbookWriter;

/**
 * Replays the latest periods of a KPI under limits and targets that somebody tries out. Nothing is kept.
 */
final readonly class WhatIfReader
{
    public function __construct(private Scorecard $scorecard, private MeasurementStore $kpis) {}

    /** @throws ValidationException where such limits cannot judge, by field */
    public function read(Models\Measurement $measurement, WantedWhatIf $wanted, NumberSetting $setting): WhatIf
    {
        $year = $this->scorecard->year->months($wanted->month);
        $kpi = $this->kpis->one($measurement->id, $this->scorecard->year->beginMonth($wanted->month)->plus(-Replay::PERIODS), $year[11])
            ?? throw new \LogicException('A measurement that was found is there.');
        $rule = $kpi->measurement->ruleAt($wanted->month);
        if ($rule === null || $kpi->measurement->definition->polarity === Polarity::None) {
            throw ValidationException::withMessages(['period' => "Nothing judges {$kpi->name} in {$wanted->month->words()}, so there is nothing to try."]);
        }
        $tried = $this->rule($kpi, $rule, $wanted);
        $targets = $this->targets($kpi->measurement->targets, $wanted);
        $measured = $kpi->measurement->trying($tried, $targets);
        $replay = Replay::of($this->scorecard, $kpi->measurement, $measured, $wanted->month, Replay::PERIODS);
        $latest = $replay->latest($measured);
        $text = new CellText($setting);
        $write = fn (CellValue $value): string => $text->write($kpi->measurement->definition, $kpi->scaled, $value);

        return new WhatIf(
            $rule->reference->value,
            $rule->measure->value,
            $kpi->measurement->definition->polarity->value,
            TriedLimits::of($rule, $setting),
            TriedLimits::of($tried, $setting),
            $setting->write($wanted->moved),
            $wanted->same === null ? '' : $write($wanted->same),
            in_array($rule, $kpi->measurement->ownRules, true),
            (object) ($targets === $kpi->measurement->targets ? [] : array_map($write, $this->proposed($kpi, $targets, $wanted->month))),
            ReplayView::of($kpi, $replay, $measured, $latest, $latest === null ? null : $this->scorecard->assessPeriod($measured, $latest)),
        );
    }

    /** The rule in force with other limits, as if it had always held. What is excellent gives no colour and is left out. */
    private function rule(MeasurementFacts $kpi, RuleSet $rule, WantedWhatIf $wanted): RuleSet
    {
        $problems = new Problems;
        $members = [...WorkbookWriter::rule($rule), ...$wanted->limits, ...($wanted->periods === null ? [] : ['periods' => $wanted->periods]), 'from' => '0001-01'];
        unset($members['stretch']);
        $definition = $kpi->measurement->definition;
        $rules = RulesReader::read([new Row($members, '', $problems)], $definition->polarity, $definition->accumulation);
        $found = $problems->all();
        if ($found !== [] || $rules === []) {
            $messages = [];
            foreach ($found as $problem) {
                $messages[$problem->pointer === '' ? 'green' : ltrim($problem->pointer, '/')] = $problem->message;
            }
            throw ValidationException::withMessages($messages);
        }

        return $rules[0];
    }

    private function targets(Targets $targets, WantedWhatIf $wanted): Targets
    {
        $same = $wanted->same?->figure === null ? null : Goal::of(
            Exact::of($wanted->same->figure),
            $wanted->same->upper === null ? null : Exact::of($wanted->same->upper),
            $wanted->same->upper !== null,
            TargetFrom::Set,
        );

        return match (true) {
            $same !== null => new SameTargets($same),
            $wanted->moved !== null && ! $wanted->moved->isZero() => new MovedTargets($targets, Exact::of($wanted->moved)),
            default => $targets,
        };
    }

    /** @return array<string, CellValue> what would have to be set in the financial year, by period */
    private function proposed(MeasurementFacts $kpi, Targets $targets, Period $month): array
    {
        $definition = $kpi->measurement->definition;
        $proposed = [];
        foreach ($this->scorecard->timeline->yearPeriods($definition->frequency, $kpi->measurement->tenure, $this->scorecard->year->of($month)) as $period) {
            $goal = $targets->goal($period);
            if ($goal !== null) {
                $proposed[$period->key()] = new CellValue($goal->lower()->rounded(max(0, $definition->decimals)), $goal->band?->high->rounded(max(0, $definition->decimals)));
            }
        }

        return $proposed;
    }
}
