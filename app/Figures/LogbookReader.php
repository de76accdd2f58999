<?php

declare(strict_types=1);

namespace App\Figures;

use App\Http\Resources\LogbookPage;
use App\Http\Resources\LogbookRow;
use App\Http\Resources\NoteResource;
use App\Http\Resources\Verdict;
use App\Models\KpiUnit;
use App\Models\Unit;
use App\Models\User;
use App\Policies\WritingRights;
use App\Support\Month;
use App\Support\NumberSetting;
use Brick\Math\BigDecimal;
use Illuminate\Database\Connection;
use Kybernet\Core\Calendar\Period;
use Kybernet\Core\Calendar\Span;
use Kybernet\Core\Scorecard;

/**
 * Lays out the month sheet: the KPIs of a unit, and of the units below it, that a person is to fill.
 */
final readonly class LogbookReader
{
    /** A streak looks back two years. */
    private const MONTHS_BACK = 24;

    public function __construct(
        private Scorecard $scorecard,
        private KpiStore $kpis,
        private Organisation $organisation,
        private WritingRights $rights,
        private Connection $database,
    ) {}

    public function page(Unit $unit, Period $month, User $user): LogbookPage
    {
        $units = $this->organisation->below($unit->id);
        $place = array_flip($units);
        $kpis = array_values(array_filter(
            $this->kpis->inUnits($units, $month->plus(-self::MONTHS_BACK), $month),
            fn (KpiFacts $kpi): bool => $this->rights->mayLog($user, $kpi->unitId, $kpi->ownerId) && $kpi->isTyped($month, $this->scorecard->year),
        ));
        usort($kpis, fn (KpiFacts $one, KpiFacts $other): int => $place[$one->unitId] <=> $place[$other->unitId]);

        return new LogbookPage($month->key(), $month->compareTo(Month::running()) <= 0, $this->rows($kpis, $month, $user));
    }

    public function row(KpiUnit $measured, Period $month, User $user): LogbookRow
    {
        $kpi = $this->kpis->one($measured->id, $month->plus(-self::MONTHS_BACK), $month)
            ?? throw new \LogicException('A KPI-unit that was found is there.');

        return $this->rows([$kpi], $month, $user)[0];
    }

    /** How a figure would be judged if it were entered. */
    public function preview(KpiUnit $measured, Period $month, ?BigDecimal $figure): Verdict
    {
        $kpi = $this->kpis->one($measured->id, $month->plus(-self::MONTHS_BACK), $month)
            ?? throw new \LogicException('A KPI-unit that was found is there.');
        $tried = $kpi->isTyped($month, $this->scorecard->year) ? $kpi->measurement->entering($month, $figure) : $kpi->measurement;

        return Verdict::of($this->scorecard->assess($tried, $month, Span::Month), $this->scorecard->streak($tried, $month));
    }

    /**
     * @param  list<KpiFacts>  $kpis
     * @return list<LogbookRow>
     */
    private function rows(array $kpis, Period $month, User $user): array
    {
        $ids = array_map(fn (KpiFacts $kpi): int => $kpi->id, $kpis);
        $versions = $this->database->table('readings')->where('period', Month::date($month))
            ->whereIn('kpi_unit_id', $ids)->pluck('version', 'kpi_unit_id');
        $notes = $this->database->table('notes')->leftJoin('users', 'users.id', '=', 'notes.author_id')
            ->where('period', Month::date($month))->whereIn('kpi_unit_id', $ids)
            ->get(['kpi_unit_id', 'text', 'version', 'users.name as author'])->keyBy('kpi_unit_id');
        $setting = new NumberSetting($user->locale);

        return array_map(function (KpiFacts $kpi) use ($month, $versions, $notes, $setting): LogbookRow {
            $note = $notes->get($kpi->id);

            return LogbookRow::of(
                $kpi,
                $this->organisation->unit($kpi->unitId)->name,
                $month,
                $this->scorecard->assess($kpi->measurement, $month, Span::Month),
                $this->scorecard->streak($kpi->measurement, $month),
                $versions->get($kpi->id, 0),
                $note === null ? null : new NoteResource($month->key(), $note->text, $note->version, $note->author),
                $setting,
            );
        }, $kpis);
    }
}
