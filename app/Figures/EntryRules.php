<?php

declare(strict_types=1);

namespace App\Figures;

use App\Models\User;
use App\Organisation\Rights;
use App\Support\Month;
use Carbon\CarbonImmutable;
use Kybernet\Core\Calendar\FinancialYear;
use Kybernet\Core\Calendar\Period;
use Kybernet\Core\Measure\GatheredFigures;
use Kybernet\Core\Measure\Kind;

/**
 * Which cells can be typed in, and why not the others. Every route that writes figures asks here.
 */
final class EntryRules
{
    private readonly Period $running;

    /** the person whom the answers below are about: a block asks a dozen times for each KPI */
    private ?User $asked = null;

    /** @var array<int, bool> whether figures are the person's to enter, by measurement */
    private array $mine = [];

    /** @var array<int, bool> whether targets are theirs to plan, by unit */
    private array $plans = [];

    public function __construct(private readonly Rights $rights, private readonly Closures $closures, private readonly FinancialYear $year)
    {
        $this->running = Month::running();
    }

    /** Why a reading cannot be typed; null where it can. */
    public function readingLock(MeasurementFacts $kpi, Period $period, User $user): ?Lock
    {
        return match (true) {
            $kpi->measurement->definition->kind === Kind::Formula => Lock::Formula,
            $kpi->measurement->actuals instanceof GatheredFigures => Lock::Gathered,
            $kpi->measurement->definition->kind === Kind::Records => Lock::Counted,
            $this->isFuture($period) => Lock::Future,
            default => $this->commonLock($kpi, $period, $user),
        };
    }

    /** Why no figure can be put over a counted one; null where it can. */
    public function overLock(MeasurementFacts $kpi, Period $period, User $user): ?Lock
    {
        $lock = $this->readingLock($kpi, $period, $user);

        return match (true) {
            $lock !== Lock::Counted => $lock,
            $this->isFuture($period) => Lock::Future,
            default => $this->commonLock($kpi, $period, $user),
        };
    }

    /** Why a target cannot be typed; null where it can. */
    public function targetLock(MeasurementFacts $kpi, Period $period, User $user): ?Lock
    {
        return $this->yearTargetLock($kpi, $user) ?? $this->commonLock($kpi, $period, $user);
    }

    /** Why a target of a whole year cannot be typed; null where it can. */
    public function yearTargetLock(MeasurementFacts $kpi, User $user): ?Lock
    {
        return match (true) {
            $kpi->measurement->definition->kind === Kind::Judged => Lock::NoTargets,
            $kpi->measurement->actuals instanceof GatheredFigures => Lock::TargetsBelow,
            ! $this->mayPlan($kpi, $user) => Lock::Planned,
            default => null,
        };
    }

    /** Why a note cannot be written; null where it can. */
    public function noteLock(MeasurementFacts $kpi, Period $period, User $user): ?Lock
    {
        return $this->isFuture($period) ? Lock::Future : $this->commonLock($kpi, $period, $user);
    }

    /**
     * Why nobody, or not this person, may write the value there, as a sentence; '' where they may.
     *
     * @param  bool  $isOver  it is put over a counted figure, knowingly
     */
    public function refusal(Layer $layer, MeasurementFacts $kpi, Period $period, CellValue|NoteText $value, User $user, bool $isOver = false): string
    {
        $lock = match ($layer) {
            Layer::Reading => $isOver ? $this->overLock($kpi, $period, $user) : $this->readingLock($kpi, $period, $user),
            Layer::Target => $this->targetLock($kpi, $period, $user),
            Layer::Note => $this->noteLock($kpi, $period, $user),
        };

        return match (true) {
            $lock !== null => $lock->refusal($kpi, $period),
            $layer === Layer::Reading && $value instanceof CellValue => $kpi->measurement->definition->outOfBounds($value->figure),
            default => '',
        };
    }

    /** A period takes figures from its first day on. */
    public function isFuture(Period $period): bool
    {
        return $this->year->beginMonth($period)->compareTo($this->running) > 0;
    }

    /** The day up to which a figure counts that is entered today; null where the period is over. */
    public function asOf(Period $period): ?string
    {
        return $this->year->endMonth($period)->compareTo($this->running) >= 0 ? CarbonImmutable::now('UTC')->toDateString() : null;
    }

    private function commonLock(MeasurementFacts $kpi, Period $period, User $user): ?Lock
    {
        return match (true) {
            ! $this->isMine($kpi, $user) => Lock::NotTheirs,
            ! $kpi->measurement->tenure->holds($period, $this->year) => Lock::NotMeasured,
            $this->closures->locks($kpi, $period) => Lock::Closed,
            default => null,
        };
    }

    /** Whether figures of the KPI are the person's to enter. */
    public function isMine(MeasurementFacts $kpi, User $user): bool
    {
        $this->ask($user);

        return $this->mine[$kpi->id] ??= $this->rights->mayLog($user, $kpi->unitId, $kpi->ownerId);
    }

    private function mayPlan(MeasurementFacts $kpi, User $user): bool
    {
        $this->ask($user);

        return $this->plans[$kpi->unitId] ??= $this->rights->analyses($user, $kpi->unitId);
    }

    private function ask(User $user): void
    {
        if ($this->asked !== $user) {
            $this->asked = $user;
            $this->mine = [];
            $this->plans = [];
        }
    }
}
