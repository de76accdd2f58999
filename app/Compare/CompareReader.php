<?php

declare(strict_types=1);

namespace App\Compare;

use App\Compare\Views\CompareCell;
use App\Compare\Views\CompareKpi;
use App\Compare\Views\CompareOffer;
use App\Compare\Views\ComparePage;
use App\Compare\Views\ComparePair;
use App\Compare\Views\CompareUnit;
use App\Compare\Views\RecurringUnit;
use App\Figures\MeasurementFacts;
use App\Kept\AssessmentStore;
use App\Kept\KeptFigure;
use App\Models\Unit;
use App\Models\User;
use App\Organisation\Organisation;
use Kybernet\Core\Calendar\Period;
use Kybernet\Core\Calendar\Span;
use Kybernet\Core\Compare\Association;
use Kybernet\Core\Compare\Comparison;
use Kybernet\Core\Compare\PeerFigure;
use Kybernet\Core\Compare\Recurring;
use Kybernet\Core\Measure\Exact;
use Kybernet\Core\Scorecard;

/**
 * Many like units beside each other on several KPIs, and where wanted against another month.
 */
final readonly class CompareReader
{
    /** So many KPIs can be compared at once. */
    public const MOST = 8;

    /** So many are, where nobody chose. */
    private const FIRST = 5;

    public function __construct(
        private LikeUnits $likeUnits,
        private AssessmentStore $assessments,
        private Organisation $organisation,
        private Scorecard $scorecard,
    ) {}

    /**
     * @param  string  $kind  of the units; blank for the kind with the most
     * @param  list<string>  $wanted  codes of the KPIs; none for the first that they share
     * @param  string  $among  code of a KPI that is to be among the first; blank for any
     * @param  Period|null  $against  another month to hold the figures against
     */
    public function page(Unit $unit, Period $month, Span $span, string $kind, array $wanted, string $among, ?Period $against, User $user): ComparePage
    {
        $shared = $this->likeUnits->under($unit, $kind, $month, $user);
        $named = array_slice(array_intersect_key($shared->measured, array_flip($wanted)), 0, self::MOST, true);
        $chosen = $named === [] ? $this->first($shared->measured, $among) : $named;
        $months = $against === null ? [$month] : [$month, $against];
        $kept = $this->assessments->figures(array_merge(...array_map(array_values(...), array_values($chosen))), $months, $span);
        $units = $this->units($chosen, $kept, $month);
        $facts = array_map(fn (int|string $code): MeasurementFacts => $shared->facts[$code], array_keys($chosen));
        $comparisons = array_map(fn (array $of, MeasurementFacts $kpi): Comparison => $this->comparison($units, $of, $kpi, $kept, $month), $chosen, $facts);
        $recurring = Recurring::among($comparisons);

        return new ComparePage(
            $shared->kind,
            $shared->kinds,
            array_map(fn (int $id): CompareUnit => new CompareUnit($this->organisation->unit($id)->code, $this->organisation->unit($id)->name), $units),
            array_map(
                fn (array $of, MeasurementFacts $kpi, Comparison $comparison): CompareKpi => $this->kpi($units, $of, $kpi, $comparison, $kept, $month, $against),
                $chosen,
                $facts,
                $comparisons,
            ),
            array_map(fn (int|string $code, array $of): CompareOffer => CompareOffer::of($shared->facts[$code], count($of)), array_keys($shared->measured), $shared->measured),
            $this->pairs(array_map(strval(...), array_keys($chosen)), $comparisons),
            $recurring === null ? null : new RecurringUnit($this->organisation->unit((int) $recurring->unit)->code, $recurring->last, $recurring->worst, $recurring->of),
        );
    }

    /**
     * @param  array<int|string, non-empty-array<int, int>>  $shared
     * @return array<int|string, non-empty-array<int, int>>
     */
    private function first(array $shared, string $among): array
    {
        $first = array_slice($shared, 0, self::FIRST, true);

        return isset($first[$among]) || ! isset($shared[$among]) ? $first : array_slice($shared, 0, self::FIRST - 1, true) + [$among => $shared[$among]];
    }

    /**
     * In tree order; those of which nothing is due any more, or yet, are left out.
     *
     * @param  array<int|string, non-empty-array<int, int>>  $chosen
     * @param  array<int, array<string, KeptFigure>>  $kept
     * @return list<int>
     */
    private function units(array $chosen, array $kept, Period $month): array
    {
        $due = [];
        foreach ($chosen as $of) {
            foreach ($of as $unit => $id) {
                if ($kept[$id][$month->key()]->isDue()) {
                    $due[$unit] = true;
                }
            }
        }

        return array_values(array_filter(array_keys($this->organisation->units()), fn (int $id): bool => isset($due[$id])));
    }

    /**
     * @param  list<int>  $units
     * @param  array<int, int>  $of  measurements by unit
     * @param  array<int, array<string, KeptFigure>>  $kept
     */
    private function comparison(array $units, array $of, MeasurementFacts $kpi, array $kept, Period $month): Comparison
    {
        $definition = $kpi->measurement->definition;
        [$left, $periods] = $this->scorecard->timeline->left($definition->frequency, $month);

        return Comparison::of($this->peers($units, $of, $kept, $month), $definition->polarity, $definition->accumulation, $left, $periods);
    }

    /**
     * @param  list<int>  $units
     * @param  array<int, int>  $of  measurements by unit
     * @param  array<int, array<string, KeptFigure>>  $kept
     * @return array<int, PeerFigure> by unit
     */
    private function peers(array $units, array $of, array $kept, Period $month): array
    {
        $peers = [];
        foreach ($units as $unit) {
            if (isset($of[$unit])) {
                $peers[$unit] = $kept[$of[$unit]][$month->key()]->peer();
            }
        }

        return $peers;
    }

    /**
     * @param  list<int>  $units
     * @param  array<int, int>  $of  measurements by unit
     * @param  array<int, array<string, KeptFigure>>  $kept
     */
    private function kpi(array $units, array $of, MeasurementFacts $kpi, Comparison $comparison, array $kept, Period $month, ?Period $against): CompareKpi
    {
        $moved = $against === null ? [] : $comparison->moved($this->peers($units, $of, $kept, $against));
        $tenths = array_fill_keys($comparison->bestTenth, 'best') + array_fill_keys($comparison->worstTenth, 'worst');
        $cells = array_map(fn (int $unit): ?CompareCell => isset($of[$unit]) ? CompareCell::of(
            $kpi,
            $kept[$of[$unit]][$month->key()],
            $comparison->ranks[$unit] ?? null,
            $comparison->percentiles[$unit] ?? null,
            $tenths[$unit] ?? null,
            $against === null ? null : $kept[$of[$unit]][$against->key()],
            $moved[$unit] ?? null,
        ) : null, $units);

        return CompareKpi::of($kpi, $comparison, $cells, array_flip($units), $against === null ? null : array_keys($moved));
    }

    /**
     * @param  list<string>  $codes
     * @param  list<Comparison>  $comparisons
     * @return list<ComparePair>
     */
    private function pairs(array $codes, array $comparisons): array
    {
        $figures = array_map(fn (Comparison $comparison): array => array_map(
            fn (PeerFigure $figure): float => ($figure->actual ?? Exact::of(0))->toFloat(),
            array_filter($comparison->units, fn (PeerFigure $figure): bool => $figure->actual !== null),
        ), $comparisons);
        $pairs = [];
        foreach ($codes as $at => $one) {
            foreach (array_slice($codes, $at + 1, null, true) as $then => $other) {
                $association = Association::of($figures[$at], $figures[$then]);
                if ($association !== null) {
                    $pairs[] = ComparePair::of($one, $other, $association);
                }
            }
        }

        return $pairs;
    }
}
