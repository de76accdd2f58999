<?php

declare(strict_types=1);

namespace App\Review;

use App\Figures\MeasurementPlace;
use App\Figures\MeasurementStore;
use App\Models\Unit;
use App\Models\User;
use App\Organisation\Organisation;
use App\Organisation\Rights;
use App\Review\Views\RibbonWeek;
use Illuminate\Database\Connection;
use Kybernet\Core\Calendar\Frequency;
use Kybernet\Core\Calendar\Period;
use Kybernet\Core\Scorecard;
use Kybernet\Core\Status\RollUp;
use Kybernet\Core\Status\Status;
use Kybernet\Core\Status\Tally;

/**
 * Opens a month into its weeks, each with how the weekly KPIs of a unit and below stand together.
 */
final readonly class WeeksReader
{
    private const REACH = 14;

    public function __construct(private MeasurementStore $kpis, private Organisation $organisation, private Rights $rights, private Scorecard $scorecard, private Connection $database) {}

    /** @return list<RibbonWeek> none where nothing is measured by the week */
    public function of(Unit $unit, Period $month, User $user): array
    {
        $weekly = $this->database->table('kpi_unit')->join('kpis', 'kpis.id', '=', 'kpi_id')->where('frequency', Frequency::Week->value)->pluck('kpi_unit.id')->flip()->all();
        $places = array_values(array_filter($this->rights->seen($user, $this->kpis->places($this->organisation->below($unit->id, $month))), fn (MeasurementPlace $place): bool => isset($weekly[$place->id])));
        if ($places === []) {
            return [];
        }
        $facts = $this->kpis->whole(array_map(fn (MeasurementPlace $place): int => $place->id, $places), $month->plus(-self::REACH), $this->scorecard->year->months($month)[11]);

        return array_map(function (Period $week) use ($places, $facts): RibbonWeek {
            $judged = [];
            $expected = $reported = 0;
            foreach ($places as $place) {
                $assessed = $this->scorecard->assessPeriod($facts[$place->id]->measurement, $week);
                $expected += count($assessed->figures->due);
                $reported += count($assessed->figures->reported);
                $judged[] = [$assessed->status, $place->weight];
            }

            return new RibbonWeek($week->key(), $expected, $reported, $reported === 0 ? Status::NoData->value : RollUp::together(Tally::of($judged))->status->value);
        }, $this->scorecard->year->endingIn(Frequency::Week, $month, $month));
    }
}
