<?php

declare(strict_types=1);

namespace App\Review;

use App\Figures\Closures;
use App\Figures\EntryRules;
use App\Figures\MeasurementFacts;
use App\Figures\MeasurementPlace;
use App\Figures\MeasurementStore;
use App\Kept\AssessmentStore;
use App\Kept\CountedMonth;
use App\Models\Unit;
use App\Models\User;
use App\Organisation\Organisation;
use App\Organisation\Rights;
use App\Review\Views\RibbonMonth;
use App\Review\Views\RibbonPage;
use Kybernet\Core\Calendar\Period;
use Kybernet\Core\Calendar\Span;
use Kybernet\Core\Scorecard;
use Kybernet\Core\Status\Status;

/**
 * Tells a financial year month by month: how much has arrived, and the unit's roll-up of each month alone.
 */
final readonly class RibbonReader
{
    public function __construct(
        private Scorecard $scorecard,
        private AssessmentStore $assessments,
        private MeasurementStore $kpis,
        private Organisation $organisation,
        private Rights $rights,
        private Closures $closures,
        private EntryRules $rules,
        private SeenMarks $seen,
    ) {}

    public function page(Unit $unit, Period $chosen, User $user): RibbonPage
    {
        $months = $this->scorecard->year->months($chosen);
        $kpis = $this->rights->seen($user, $this->kpis->places($this->organisation->belowIn($unit->id, $months)));
        $counted = $this->assessments->counted($kpis, $months, Span::Month);
        $missing = $counted[$chosen->key()]->missing;
        $open = array_filter($missing === [] ? [] : $this->kpis->described(array_keys($missing)), function (MeasurementFacts $kpi) use ($chosen, $user): bool {
            $period = $this->scorecard->endingIn($kpi->measurement, $chosen);

            return $period !== null && $this->rules->readingLock($kpi, $period, $user) === null;
        });

        return new RibbonPage(
            $this->scorecard->year->label($chosen),
            array_map(fn (Period $month): RibbonMonth => $this->month($unit, $counted[$month->key()], $month), $months),
            array_sum(array_intersect_key($missing, $open)),
            $this->unseen(array_map(fn (MeasurementPlace $kpi): int => $kpi->id, array_values(array_filter($kpis, fn (MeasurementPlace $kpi): bool => ! $kpi->weight->isZero()))), $chosen, $user),
        );
    }

    private function month(Unit $unit, CountedMonth $counted, Period $month): RibbonMonth
    {
        $status = $counted->owed > 0 && $counted->arrived === 0 ? Status::NoData : $this->organisation->tree($month)->rollUp($unit->id, $counted->units)[$unit->id]->status;

        return new RibbonMonth($month->key(), $counted->owed, $counted->arrived, $status->value, $this->closures->holds($unit->id, $month));
    }

    /** @param  list<int>  $measurements */
    private function unseen(array $measurements, Period $chosen, User $user): int
    {
        $seen = $this->seen->by($user, $chosen, $measurements);
        $unseen = 0;
        foreach ($this->assessments->reasons($measurements, $chosen, Span::Month) as $id => [, $reasons]) {
            $unseen += $reasons === '' || $reasons === ($seen[$id] ?? '') ? 0 : 1;
        }

        return $unseen;
    }
}
