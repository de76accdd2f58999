<?php

declare(strict_types=1);

namespace App\Kept;

use App\Figures\MeasurementFacts;
use App\Views\CourseView;
use App\Views\Difference;
use App\Views\ExceptionReason;
use App\Views\Shown;
use App\Views\TrackView;
use App\Views\WakePoint;
use App\Views\ZonesView;
use Kybernet\Core\Assessment;
use Kybernet\Core\Attention\Exceptions;
use Kybernet\Core\Attention\Reason;
use Kybernet\Core\Calendar\Period;
use Kybernet\Core\Compare\LikeForLike;
use Kybernet\Core\Measure\Band;
use Kybernet\Core\Measure\Kind;
use Kybernet\Core\Status\Course;
use Kybernet\Core\Status\Status;
use Kybernet\Core\Trend\Track;

/**
 * What was judged of a KPI in a unit on a span, as a page shows it. SpanRecord keeps it.
 */
final readonly class AssessedSpan
{
    /** What is said of a span in which no reading was due. */
    public const NOTHING_DUE = 'nothing due';

    /**
     * @param  string  $instead  what is said where there is no figure
     * @param  list<WakePoint>  $wake
     * @param  string  $monthStatus  of the chosen month alone
     * @param  string|null  $asOf  the day up to which its figure counts, where a period of it was not over
     * @param  list<ExceptionReason>  $reasons
     * @param  array{Shown, Shown}|null  $band  what it should lie between
     * @param  string|null  $compared  exact, over the periods that have a target too; null where it is the figure itself
     * @param  string|null  $latest  the latest period that was due; null outside the KPI's tenure
     */
    public function __construct(
        public string $status,
        public bool $stretched,
        public bool $called,
        public ?Shown $actual,
        public string $instead,
        public ?Shown $target,
        public ?Shown $prior,
        public ?Difference $variance,
        public ?Difference $change,
        public ?Difference $step,
        public ?ZonesView $zones,
        public ?CourseView $course,
        public ?TrackView $track,
        public array $wake,
        public string $monthStatus,
        public int $expected,
        public int $reported,
        public ?string $asOf,
        public array $reasons,
        public ?string $goodNews,
        public ?string $latest,
        public ?array $band,
        public ?string $compared,
    ) {}

    public static function of(MeasurementFacts $kpi, Assessment $assessed, ?Course $course, ?Track $track, Status $monthStatus, Period $latest, bool $isDue, ?Exceptions $exceptions): self
    {
        return new self(
            $assessed->status->value,
            $assessed->isStretched(),
            $assessed->call !== null,
            Shown::of($assessed->figures->actual, $kpi),
            self::instead($kpi, $assessed->figures),
            Shown::of($assessed->figures->goal?->target, $kpi),
            Shown::of($assessed->prior->figure, $kpi),
            Difference::of($assessed->variance, $kpi),
            Difference::of($assessed->change, $kpi),
            Difference::of($assessed->step, $kpi),
            ZonesView::of($assessed->zones(), $kpi->measurement->definition->polarity),
            CourseView::of($course),
            TrackView::of($track, $kpi),
            WakePoint::upTo($kpi, $latest),
            $monthStatus->value,
            count($assessed->figures->due),
            count($assessed->figures->reported),
            $kpi->provisional($assessed->figures->reported),
            array_map(fn (Reason $reason): ExceptionReason => new ExceptionReason($reason->code->value, $reason->text, $reason->points), $exceptions->reasons ?? []),
            $exceptions?->goodNews,
            $isDue ? $latest->key() : null,
            self::band($assessed->figures->goal?->band, $kpi),
            self::compared($assessed->figures),
        );
    }

    /** @return array{Shown, Shown}|null */
    private static function band(?Band $band, MeasurementFacts $kpi): ?array
    {
        [$low, $high] = [Shown::of($band?->low, $kpi), Shown::of($band?->high, $kpi)];

        return $low === null || $high === null ? null : [$low, $high];
    }

    private static function compared(LikeForLike $figures): ?string
    {
        [$actual, $compared] = [$figures->actual, $figures->comparedActual];

        return $compared === null || ($actual !== null && $actual->compareTo($compared) === 0) ? null : (string) $compared;
    }

    /** Before the weight. */
    public function points(): int
    {
        return array_sum(array_map(fn (ExceptionReason $reason): int => $reason->points, $this->reasons));
    }

    /** The reasons as they are marked as seen: another one that comes later makes them others. */
    public function codes(): string
    {
        return implode(' ', array_map(fn (ExceptionReason $reason): string => $reason->code, $this->reasons));
    }

    private static function instead(MeasurementFacts $kpi, LikeForLike $figures): string
    {
        return match (true) {
            $figures->due === [] => self::NOTHING_DUE,
            $figures->reported === [] => 'no reading',
            $kpi->measurement->definition->kind === Kind::Judged => 'a person judged',
            default => 'no value',
        };
    }
}
