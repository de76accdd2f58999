<?php

declare(strict_types=1);

namespace App\Briefings;

use App\Briefings\Views\SinceView;
use App\Figures\MeasurementStore;
use App\Kept\AssessmentStore;
use App\Views\Difference;
use Kybernet\Core\Calendar\Period;
use Kybernet\Core\Calendar\Span;
use Kybernet\Core\Compare\Variance;
use Kybernet\Core\Measure\Exact;

/**
 * How figures have changed since an earlier month, on the span on which they are shown.
 */
final readonly class SinceReader
{
    /** How many months lie between. */
    private const BACK = ['period' => 1, 'quarter' => 3, 'year' => 12];

    public function __construct(private AssessmentStore $assessments, private MeasurementStore $kpis) {}

    /**
     * @param  list<Place>  $places  of figures
     * @return array<string, SinceView> by piece
     */
    public function of(array $places, Period $month): array
    {
        $spans = [];
        foreach ($places as $place) {
            foreach ($place->kpis as $kpi) {
                $spans[$place->span->value][] = $kpi->id;
            }
        }
        $facts = $spans === [] ? [] : $this->kpis->described(array_merge(...array_values($spans)));
        $months = [$month, ...array_map(fn (int $back): Period => $month->plus(-$back), array_values(self::BACK))];
        $figures = [];
        foreach ($spans as $span => $ids) {
            $figures[$span] = $this->assessments->figures($ids, $months, Span::from($span));
        }
        $found = [];
        foreach ($places as $place) {
            foreach ($place->kpis as $kpi) {
                $earlier = $month->plus(-self::BACK[$place->piece->choice('since')]);
                $of = $figures[$place->span->value][$kpi->id];
                [$now, $then] = [$of[$month->key()]->actual, $of[$earlier->key()]->actual];
                $found[$place->piece->id] = new SinceView($earlier->key(), $now === null || $then === null ? null : Difference::of(Variance::between(Exact::of($now->exact), Exact::of($then->exact), $facts[$kpi->id]->measurement->definition->polarity), $facts[$kpi->id]));
            }
        }

        return $found;
    }
}
