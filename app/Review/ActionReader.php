<?php

declare(strict_types=1);

namespace App\Review;

use App\Figures\MeasurementFacts;
use App\Models\User;
use App\Organisation\Organisation;
use App\Organisation\Rights;
use App\Support\PeriodDate;
use App\Support\PgArray;
use App\Views\ActionView;
use App\Views\Shown;
use App\Views\WakePoint;
use Carbon\CarbonImmutable;
use Illuminate\Database\Connection;
use Kybernet\Core\Attention\Deadline;
use Kybernet\Core\Calendar\Period;
use Kybernet\Core\Measure\Kind;
use Kybernet\Core\Scorecard;
use Kybernet\Core\Status\Status;
use stdClass;

/**
 * Reads actions, each with how its KPI stood when it was agreed and how it stands now.
 */
final readonly class ActionReader
{
    public function __construct(
        private Connection $database,
        private Scorecard $scorecard,
        private Organisation $organisation,
        private Rights $rights,
        private PeriodDate $dates,
    ) {}

    /**
     * @param  array<int, MeasurementFacts>  $kpis  by identity
     * @return array<int, list<ActionView>> by measurement: open ones first, the earliest due before the others
     */
    public function of(array $kpis, Period $chosen, User $user): array
    {
        $today = CarbonImmutable::now('UTC')->toDateString();
        $actions = [];
        foreach ($this->database->table('actions')->whereRaw('kpi_unit_id = ANY(?::bigint[])', [PgArray::of(array_keys($kpis))])
            ->orderByRaw("state = 'open' DESC, CASE WHEN state = 'open' THEN due END, ended DESC, id DESC")->get() as $row) {
            $actions[$row->kpi_unit_id][] = $this->resource($row, $kpis[$row->kpi_unit_id], $chosen, $today, $user);
        }

        return $actions;
    }

    private function resource(stdClass $row, MeasurementFacts $kpi, Period $chosen, string $today, User $user): ActionView
    {
        $measurement = $kpi->measurement;
        $cause = $this->dates->period($row->period, $measurement->definition->frequency);
        $latest = $this->scorecard->timeline->latest($measurement->definition->frequency, $chosen);
        $status = fn (Period $period): Status => $this->scorecard->periodStatus($measurement, $period);

        return new ActionView(
            $row->id,
            $kpi->id,
            $kpi->code,
            $kpi->name,
            $measurement->definition->measure,
            $this->organisation->unit($kpi->unitId)->code,
            $cause->key(),
            $row->what,
            $row->who,
            $row->due,
            $row->state,
            $row->outcome,
            $row->ended,
            $row->state === 'open' && Deadline::isMissed($row->due, $today),
            $this->rights->mayLog($user, $kpi->unitId, $kpi->ownerId),
            $row->version,
            $status($cause)->value,
            Shown::of($measurement->definition->kind === Kind::Judged ? null : $measurement->actuals->figure($cause), $kpi),
            $status($latest)->value,
            Shown::of($measurement->definition->kind === Kind::Judged ? null : $measurement->actuals->figure($latest), $kpi),
            $cause->compareTo($latest) < 0 ? WakePoint::between($kpi, $cause, $latest) : [],
        );
    }
}
