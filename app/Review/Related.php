<?php

declare(strict_types=1);

namespace App\Review;

use App\Figures\MeasurementFacts;
use App\Models\Measurement;
use App\Models\User;
use App\Organisation\Organisation;
use App\Organisation\Rights;
use App\Views\RelatedMeasurement;
use Illuminate\Database\Connection;
use Illuminate\Database\Query\Builder;
use Illuminate\Database\Query\JoinClause;
use Kybernet\Core\Assessment;
use Kybernet\Core\Calendar\Frequency;
use Kybernet\Core\Calendar\Period;
use Kybernet\Core\Calendar\Span;
use Kybernet\Core\Compare\Correlation;
use Kybernet\Core\Compare\Standing;
use Kybernet\Core\Measure\Kind;
use Kybernet\Core\Scorecard;

/**
 * What stands beside a KPI in a unit: its drivers, and the same KPI in other units.
 */
final readonly class Related
{
    /** Over how many periods it is told how closely a driver has moved with the KPI. */
    public const PERIODS = 24;

    public function __construct(private Connection $database, private Scorecard $scorecard, private Organisation $organisation, private Rights $rights) {}

    /** @return array{drivers: list<int>, places: list<int>} measurements that the person sees */
    public function to(Measurement $measurement, User $user): array
    {
        $rows = $this->database->table('kpi_unit')
            ->leftJoin('kpi_drivers', fn (JoinClause $join): JoinClause => $join->on('kpi_drivers.driver_id', '=', 'kpi_unit.kpi_id')->where('kpi_drivers.kpi_id', $measurement->kpi_id))
            ->where(fn (Builder $query): Builder => $query->where('kpi_unit.kpi_id', $measurement->kpi_id)->orWhereNotNull('kpi_drivers.kpi_id'))
            ->where('kpi_unit.id', '<>', $measurement->id)
            ->orderBy('kpi_drivers.position')->orderBy('kpi_unit.id')
            ->get(['kpi_unit.id', 'kpi_unit.unit_id', 'kpi_unit.owner_id', 'kpi_unit.kpi_id', 'kpi_drivers.kpi_id as drives']);
        $drivers = [];
        $places = [];
        foreach ($rows as $row) {
            if (! $this->rights->maySee($user, $row->unit_id, $row->owner_id)) {
                continue;
            }
            if ($row->drives === null) {
                $places[] = $row->id;
            } elseif ($row->unit_id === $measurement->unit_id || ! isset($drivers[$row->kpi_id])) {
                // A driver is told where the KPI itself is measured, or else where it is measured first.
                $drivers[$row->kpi_id] = $row->id;
            }
        }

        return ['drivers' => array_values($drivers), 'places' => $places];
    }

    /**
     * @param  list<int>  $measurements
     * @param  array<int, MeasurementFacts>  $facts  by identity
     * @return array<int, Assessment> by measurement
     */
    public function assessed(array $measurements, array $facts, Period $chosen, Span $span): array
    {
        $assessed = [];
        foreach ($measurements as $id) {
            $assessed[$id] = $this->scorecard->assess($facts[$id]->measurement, $chosen, $span);
        }

        return $assessed;
    }

    /**
     * @param  array<int, Assessment>  $assessed  by measurement
     * @param  array<int, MeasurementFacts>  $facts  by identity
     * @param  MeasurementFacts|null  $driven  what they drive
     * @param  Standing|null  $among  how they rank
     * @return list<RelatedMeasurement>
     */
    public function lines(array $assessed, array $facts, Period $chosen, ?MeasurementFacts $driven = null, ?Standing $among = null): array
    {
        $lines = [];
        foreach ($assessed as $id => $each) {
            $unit = $this->organisation->unit($facts[$id]->unitId)->code;
            $lines[] = RelatedMeasurement::of(
                $facts[$id],
                $unit,
                $each,
                $this->scorecard->status($facts[$id]->measurement, $chosen, Span::Month),
                $this->scorecard->timeline->latest($facts[$id]->measurement->definition->frequency, $chosen),
                $driven === null ? null : $this->together($driven, $facts[$id], $chosen),
                $among?->ranks[$unit] ?? null,
            );
        }

        return $lines;
    }

    /**
     * Where a unit lies among those of its kind. One that gathers the others is of another kind.
     *
     * @param  array<int, Assessment>  $assessed  of the same KPI by measurement, its own among them
     * @param  array<int, MeasurementFacts>  $facts  by identity
     */
    public function standing(MeasurementFacts $kpi, array $assessed, array $facts): ?Standing
    {
        if ($kpi->measurement->definition->kind === Kind::Judged) {
            return null;
        }
        $own = $this->organisation->unit($kpi->unitId);
        $spans = [];
        foreach ($assessed as $id => $each) {
            $unit = $this->organisation->unit($facts[$id]->unitId);
            if ($unit->kind === $own->kind) {
                $spans[$unit->code] = $each->figures;
            }
        }

        return Standing::of($own->code, $spans, $kpi->measurement->definition->polarity);
    }

    /** How closely two KPIs of one frequency have moved together over the last periods. */
    private function together(MeasurementFacts $one, MeasurementFacts $other, Period $chosen): ?float
    {
        $frequency = $one->measurement->definition->frequency;

        return $frequency === $other->measurement->definition->frequency
            ? Correlation::pearson($this->series($one, $frequency, $chosen), $this->series($other, $frequency, $chosen))
            : null;
    }

    /** @return array<string, float> by period */
    private function series(MeasurementFacts $kpi, Frequency $frequency, Period $chosen): array
    {
        $series = [];
        foreach ($this->scorecard->timeline->upTo($this->scorecard->timeline->latest($frequency, $chosen), self::PERIODS) as $period) {
            $figure = $kpi->measurement->actuals->float($period);
            if ($figure !== null) {
                $series[$period->key()] = $figure;
            }
        }

        return $series;
    }
}
