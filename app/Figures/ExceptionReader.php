<?php

declare(strict_types=1);

namespace App\Figures;

use App\Http\Resources\ActionResource;
use App\Http\Resources\ExceptionItem;
use App\Http\Resources\ExceptionReason;
use App\Http\Resources\ExceptionsPage;
use App\Http\Resources\GoodNews;
use App\Http\Resources\NoteResource;
use App\Http\Resources\Shown;
use App\Http\Resources\WakePoint;
use App\Models\Unit;
use App\Models\User;
use App\Policies\Rights;
use App\Support\Month;
use App\Support\PeriodDate;
use App\Support\PgArray;
use Brick\Math\BigDecimal;
use Carbon\CarbonImmutable;
use Illuminate\Database\Connection;
use Kybernet\Core\Assessment;
use Kybernet\Core\Attention\Exceptions;
use Kybernet\Core\Attention\Reason;
use Kybernet\Core\Calendar\Period;
use Kybernet\Core\Calendar\Span;
use Kybernet\Core\Scorecard;
use stdClass;

/**
 * Ranks what deserves attention in a unit and below it.
 */
final readonly class ExceptionReader
{
    public function __construct(
        private Scorecard $scorecard,
        private KpiStore $kpis,
        private NoteRows $notes,
        private ActionReader $actions,
        private Organisation $organisation,
        private Rights $rights,
        private PeriodDate $dates,
        private Connection $database,
    ) {}

    public function page(Unit $unit, Period $chosen, Span $span, User $user): ExceptionsPage
    {
        $year = $this->scorecard->year->months($chosen);
        $kpis = array_column($this->rights->seen($user, $this->kpis->inUnits($this->organisation->below($unit->id), $chosen, $year[11])), null, 'id');
        $ids = array_keys($kpis);
        $notes = $this->notes->between($ids, Month::date($chosen->plus(-12)), Month::date($year[11]));
        $actions = $this->actions->of($kpis, $chosen, $user);
        $seen = $this->seen($ids, $chosen, $user);
        $emails = $this->database->table('users')->pluck('email', 'id');

        $items = [];
        $good = [];
        foreach ($kpis as $id => $kpi) {
            $latest = $this->scorecard->latest($kpi->measurement, $chosen);
            if ($latest === null) {
                continue;
            }
            $assessed = $this->scorecard->assess($kpi->measurement, $chosen, $span);
            $note = $notes[$id][$this->dates->date($latest)] ?? null;
            $exceptions = $this->scorecard->exceptions(
                $kpi->measurement,
                $chosen,
                $span,
                $assessed,
                $this->scorecard->past($kpi->measurement, $chosen),
                $this->scorecard->projection($kpi->measurement, $chosen),
                $this->scorecard->control($kpi->measurement, $chosen),
                $note !== null,
            );
            $code = $this->organisation->unit($kpi->unitId)->code;
            if ($exceptions?->goodNews !== null) {
                $good[] = new GoodNews($id, $kpi->code, $kpi->name, $code, $exceptions->goodNews);
            }
            if ($exceptions !== null && $exceptions->reasons !== [] && ! $kpi->weight->isZero()) {
                $items[] = [$exceptions->points($kpi->weight), $this->item($kpi, $code, $assessed, $exceptions, $latest, $note, $actions[$id] ?? [], $seen[$id] ?? null, $chosen, $user, $emails[$kpi->ownerId ?? 0] ?? null)];
            }
        }
        // Sorting keeps the order of what ranks the same: that of the register.
        usort($items, fn (array $one, array $other): int => $other[0]->compareTo($one[0]));

        return new ExceptionsPage(
            array_column($items, 1),
            $good,
            array_values(array_filter(array_merge(...array_values($actions)), fn (ActionResource $action): bool => $action->overdue)),
            count($kpis),
        );
    }

    /** @param  list<ActionResource>  $actions */
    private function item(
        KpiFacts $kpi,
        string $unit,
        Assessment $assessed,
        Exceptions $exceptions,
        Period $latest,
        ?stdClass $note,
        array $actions,
        ?string $seen,
        Period $chosen,
        User $user,
        ?string $email,
    ): ExceptionItem {
        return new ExceptionItem(
            $kpi->id,
            $kpi->code,
            $kpi->name,
            $kpi->measurement->definition->measure,
            $unit,
            $kpi->owner,
            $email,
            $assessed->status->value,
            $this->scorecard->status($kpi->measurement, $chosen, Span::Month)->value,
            $assessed->call !== null,
            Shown::of($assessed->figures->actual, $kpi),
            (string) $exceptions->points($kpi->weight)->stripTrailingZeros(),
            (string) BigDecimal::of($kpi->weight)->stripTrailingZeros(),
            array_map(fn (Reason $reason): ExceptionReason => new ExceptionReason($reason->code, $reason->text, $reason->points), $exceptions->reasons),
            WakePoint::upTo($kpi, $latest),
            $latest->key(),
            $this->isMissing($exceptions) ? $this->dueDay($kpi, $latest) : null,
            $note === null ? null : NoteResource::of($note, $latest->key()),
            array_values(array_filter($actions, fn (ActionResource $action): bool => $action->state === 'open')),
            $seen === self::fingerprint($exceptions),
            $this->rights->mayLog($user, $kpi->unitId, $kpi->ownerId),
        );
    }

    /** What was seen: a reason that comes later brings the KPI back. */
    public static function fingerprint(Exceptions $exceptions): string
    {
        return implode(' ', array_map(fn (Reason $reason): string => $reason->code, $exceptions->reasons));
    }

    private function isMissing(Exceptions $exceptions): bool
    {
        return in_array('missing', array_map(fn (Reason $reason): string => $reason->code, $exceptions->reasons), true);
    }

    private function dueDay(KpiFacts $kpi, Period $latest): ?string
    {
        if ($kpi->dueDay === null) {
            return null;
        }
        $month = CarbonImmutable::parse(Month::date($this->scorecard->year->endMonth($latest)->plus(1)));

        return $month->setDay(min($kpi->dueDay, $month->daysInMonth))->toDateString();
    }

    /**
     * @param  list<int>  $kpiUnits
     * @return array<int, string> the reasons that the person has seen, by KPI-unit
     */
    private function seen(array $kpiUnits, Period $chosen, User $user): array
    {
        return $this->database->table('seen_marks')->where('user_id', $user->id)->where('period', Month::date($chosen))
            ->whereRaw('kpi_unit_id = ANY(?::bigint[])', [PgArray::of($kpiUnits)])->pluck('reasons', 'kpi_unit_id')->all();
    }
}
