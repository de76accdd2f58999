<?php

declare(strict_types=1);

namespace App\Register;

use App\Figures\CellValue;
use App\Figures\MeasurementStore;
use App\Models;
use App\Views\ReplayView;
use Brick\Math\BigDecimal;
use Kybernet\Core\Measure\KeptMeasurement;
use Kybernet\Core\Measure\Series;
use Kybernet\Core\Replay;
use Kybernet\Core\Scorecard;

/**
 * Replays the latest two years of a KPI under a rule that is being typed.
 */
final readonly class ReplayReader
{
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
        $replay = Replay::of($this->scorecard, $kpi->measurement, $typed, $month, Replay::PERIODS);
        $latest = $replay->latest($typed);

        return ReplayView::of($kpi, $replay, $typed, $latest, $latest === null ? null : $this->scorecard->assessPeriod($typed, $latest));
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
