<?php

declare(strict_types=1);

namespace App\Register;

use App\Figures\CellValue;
use App\Figures\MeasurementStore;
use App\Models;
use App\Register\Views\ReplayPeriod;
use App\Register\Views\ReplayView;
use App\Views\CountsView;
use App\Views\ZonesView;
use Brick\Math\BigDecimal;
use Kybernet\Core\Calendar\Period;
use Kybernet\Core\Measure\KeptMeasurement;
use Kybernet\Core\Measure\Series;
use Kybernet\Core\Replay;
use Kybernet\Core\Scorecard;

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
        $typed = $this->kpis->tried(
            $place->id,
            $month->plus(-self::MONTHS_BACK),
            $month,
            fn (KeptMeasurement $kept): KeptMeasurement => $this->typed($kept, $rule),
            $rule->targetFormula?->operands() ?? [],
        )->measurement;
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
                $written($typed->targets->goal($period)?->lower()),
            ), $replay->periods, array_keys($replay->periods)),
            CountsView::of($replay->countsAsIs()),
            CountsView::of($replay->countsAsTyped()),
            $replay->words(),
            $assessed === null ? '' : "{$latest->words()}: {$assessed->reason(false)}",
            ZonesView::of($assessed?->zones(), $rule->polarity),
        );
    }

    private function typed(KeptMeasurement $kept, TypedRule $typed): KeptMeasurement
    {
        /** @param  \Closure(CellValue): (BigDecimal|null)  $figure */
        $series = fn (Series $kept, \Closure $figure): Series => new Series([
            ...array_diff_key($kept->all(), $typed->targets),
            ...array_map(fn (BigDecimal $each): string => (string) $each, array_filter(array_map($figure, $typed->targets))),
        ]);

        return $kept->trying(
            $kept->definition->judgedBy($typed->polarity, $typed->accumulation, $typed->rule === null ? [] : [$typed->rule])->aimingBy($typed->targetFormula),
            $series($kept->targets, fn (CellValue $value): ?BigDecimal => $value->figure),
            $series($kept->upperTargets, fn (CellValue $value): ?BigDecimal => $value->upper),
        );
    }
}
