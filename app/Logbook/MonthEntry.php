<?php

declare(strict_types=1);

namespace App\Logbook;

use App\Figures\Lock;
use App\Figures\MeasurementFacts;
use App\Figures\ReadingStage;
use Kybernet\Core\Assessment;
use Kybernet\Core\Attention\Owed;
use Kybernet\Core\Calendar\Period;
use stdClass;

/** A KPI of the month sheet for one of its periods: what is kept of it, how it is judged, and whether it can be typed. */
final readonly class MonthEntry
{
    /**
     * @param  Lock|null  $lock  why it cannot be typed; null where it can
     * @param  int  $version  of the reading; 0 when there never was one
     * @param  stdClass|null  $note  the row it is kept in
     */
    public function __construct(
        public MeasurementFacts $kpi,
        public Period $period,
        public Assessment $assessed,
        public ?Lock $lock,
        public int $version,
        public ?ReadingStage $stage,
        public ?stdClass $note,
        public bool $isOverable = false,
    ) {}

    /** Whether it is the person's to hand in. */
    public function isTheirs(): bool
    {
        return $this->lock === null && Owed::byPeople($this->kpi->measurement);
    }

    public function isMissing(): bool
    {
        return Owed::isMissing($this->kpi->measurement, $this->period);
    }

    /** Whether its colour must be explained before it is handed in, and is not. */
    public function isUnexplained(): bool
    {
        return $this->kpi->needsNote && Owed::lacksReason($this->assessed->status, $this->note->text ?? null);
    }

    /** Whether somebody has entered it, and it is not handed in yet. */
    public function isReady(): bool
    {
        return ! $this->isMissing() && $this->stage === ReadingStage::Entered;
    }
}
