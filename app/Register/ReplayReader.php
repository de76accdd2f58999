<?php

declare(strict_types=1);

namespace App\Register;

use App\Figures\MeasurementStore;
use App\Models;
use App\Register\Views\ReplayPeriod;
use App\Register\Views\ReplayView;
use App\Views\CountsView;
use App\Views\ZonesView;
use Kybernet\Core\Calendar\Period;
use Kybernet\Core\Measure\Measurement;
use Kybernet\Core\Measure\Series;
use Kybernet\Core\Measure\TargetLine;
use Kybernet\Core\Measure\Targets;
use Kybernet\Core\Replay;
use Kybernet\Core\Scorecard;
use Kybernet\Core\Status\Polarity;

/**
 * Replays the latest two years of a KPI under a rule that is being typed.
 */
final readonly class ReplayReader
{
    private const PERIODS = 24;

    /** A comparison with last year reaches one year further back, and recent periods a little more. */
    private const MONTHS_BACK = 40;

    public function __construct(private Scorecard $scorecard, private MeasurementStore $kpis) {}

    public function replay(TypedRule $rule): ReplayView
    {
        $place = Models\Measurement::query()->whereRelation('kpi', 'code', $rule->code)->whereRelation('unit', 'code', $rule->unit)->firstOrFail();
        $month = $rule->month;
        $kpi = $this->kpis->one($place->id, $month->plus(-self::MONTHS_BACK), $month) ?? throw new \LogicException('A measurement that was found is there.');
        $typed = $this->typed($kpi->measurement, $rule);
        $replay = Replay::of($this->scorecard, $kpi->measurement, $typed, $month, self::PERIODS);
        $read = array_values(array_filter($replay->periods, $typed->actuals->has(...)));
        $latest = $read === [] ? null : $read[count($read) - 1];
        $assessed = $latest === null ? null : $this->scorecard->assessPeriod($typed, $latest);
        $written = fn (mixed $figure): ?string => $figure === null ? null : (string) $figure;

        return new ReplayView(
            array_map(fn (Period $period, int $at): ReplayPeriod => new ReplayPeriod(
                $period->key(),
                $replay->asIs[$at]->value,
                $replay->asTyped[$at]->value,
                $replay->changes($at),
                $written($kpi->shows($typed->actuals->figure($period))),
                $written($typed->targets->line->figure($period)),
            ), $replay->periods, array_keys($replay->periods)),
            CountsView::of($replay->countsAsIs()),
            CountsView::of($replay->countsAsTyped()),
            $replay->words(),
            $assessed === null ? '' : "{$latest->words()}: {$assessed->reason(false)}",
            ZonesView::of($assessed?->zones(), $rule->polarity),
        );
    }

    private function typed(Measurement $saved, TypedRule $typed): Measurement
    {
        $definition = $saved->definition->judgedBy($typed->polarity, $typed->accumulation, $typed->rule === null ? [] : [$typed->rule]);

        return new Measurement($definition, $saved->actuals, $this->targets($saved, $typed), $saved->tenure, [], $saved->baseline);
    }

    private function targets(Measurement $saved, TypedRule $rule): Targets
    {
        $typed = $rule->targets;
        if ($typed === []) {
            return $saved->targets;
        }
        $line = function (?TargetLine $kept, bool $isUpper) use ($typed): TargetLine {
            $own = $kept?->own()->all() ?? [];
            foreach ($typed as $period => $value) {
                $figure = $isUpper ? $value->upper : $value->figure;
                unset($own[$period]);
                $own += $figure === null ? [] : [$period => (string) $figure];
            }

            return $kept === null ? TargetLine::of(new Series($own)) : $kept->withOwn(new Series($own));
        };

        return $rule->polarity === Polarity::Band
            ? Targets::band($line($saved->targets->line, false), $line($saved->targets->upper, true))
            : Targets::of($line($saved->targets->line, false));
    }
}
