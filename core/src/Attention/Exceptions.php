<?php

declare(strict_types=1);

namespace Kybernet\Core\Attention;

use Brick\Math\BigDecimal;
use Kybernet\Core\Assessment;
use Kybernet\Core\Calendar\Period;
use Kybernet\Core\Calendar\Span;
use Kybernet\Core\Compare\Effect;
use Kybernet\Core\Measure\Exact;
use Kybernet\Core\Measure\InWords;
use Kybernet\Core\Measure\Measurement;
use Kybernet\Core\Status\Movement;
use Kybernet\Core\Status\Polarity;
use Kybernet\Core\Status\Status;
use Kybernet\Core\Trend\ControlChart;
use Kybernet\Core\Trend\Projection;
use Kybernet\Core\Trend\Side;
use Kybernet\Core\Trend\Signal;

/**
 * Why a KPI deserves the next hour, with points that rank it, and what is good news about it.
 */
final readonly class Exceptions
{
    /** From which number of periods off course on it is persistent, and what each beyond the second adds. */
    private const PERSISTENT_FROM = 3;

    private const PERSISTENT_MOST = 20;

    private const BEHIND_PERCENT = 10;

    /** @param  list<Reason>  $reasons */
    private function __construct(public array $reasons, public ?string $goodNews) {}

    /**
     * @param  Assessment  $assessed  on the chosen span
     * @param  Period  $latest  the latest period that was due
     * @param  bool  $isNoted  whether that period has a note
     */
    public static function of(
        Measurement $measurement,
        Assessment $assessed,
        Span $span,
        Past $past,
        ?Projection $projection,
        ?ControlChart $control,
        Period $latest,
        bool $isNoted,
    ): self {
        $status = $assessed->status;
        $offCourse = Owed::lacksReason($status, null);
        $before = $past->colourBefore();
        $movement = $before === null ? Movement::None : Movement::between($before, $past->latest());
        $run = $past->offCourse();
        $signals = self::adverseSignals($measurement->definition->polarity, $control, $latest);
        $reasons = [];
        $add = function (ReasonCode $code, string $text, ?int $points = null) use (&$reasons): void {
            $reasons[] = new Reason($code, $points ?? $code->points(), $text);
        };

        if ($offCourse) {
            $add($status === Status::Red ? ReasonCode::Red : ReasonCode::Amber, "{$status->words()} on the {$span->words()}.");
        }
        if ($before !== null && $movement === Movement::Worse) {
            $add(ReasonCode::Worsened, "{$past->latest()->words()} now, {$before->inPassing()} before.");
        }
        if ($run >= self::PERSISTENT_FROM) {
            $points = min(self::PERSISTENT_MOST, ($run - self::PERSISTENT_FROM + 1) * ReasonCode::Persistent->points());
            $add(ReasonCode::Persistent, "Not on course for {$run} {$measurement->definition->frequency->value}s in a row.", $points);
        }
        if ($projection?->status === Status::Red && $status !== Status::Red) {
            $add(ReasonCode::ProjectedMiss, 'Heading off course by the year end.');
        }
        if ($signals !== []) {
            $add(ReasonCode::Signal, 'Beyond chance: '.implode(', ', array_map(fn (Signal $signal): string => $signal->words(), $signals)).'.');
        }
        if (self::isBehindPriorYear($measurement, $assessed)) {
            $add(ReasonCode::BehindPriorYear, 'Worse than last year by '.InWords::grouped((string) $assessed->change?->percent?->abs()->rounded(1)).' %.');
        }
        if (Owed::isMissing($measurement, $latest)) {
            $add(ReasonCode::Missing, "No reading for {$latest->words()}.");
        }
        if ($offCourse && ! $isNoted) {
            $add(ReasonCode::Unexplained, "No note on {$latest->words()} says why.");
        }

        return new self($reasons, $before !== null && $movement === Movement::Recovered
            ? "On course again, {$before->inPassing()} before."
            : null);
    }

    /** What ranks it: the sum of the points × the KPI's weight. */
    public function points(BigDecimal $weight): BigDecimal
    {
        return self::weighted(array_sum(array_map(fn (Reason $reason): int => $reason->points, $this->reasons)), $weight);
    }

    /** Of reasons that are known by the sum of their points alone. */
    public static function weighted(int $points, BigDecimal $weight): BigDecimal
    {
        return $weight->multipliedBy($points);
    }

    /** @return list<Signal> completed at the latest period on the side that is worse; on a band either */
    private static function adverseSignals(Polarity $polarity, ?ControlChart $control, Period $latest): array
    {
        $sides = match ($polarity) {
            Polarity::Higher => [Side::Lower],
            Polarity::Lower => [Side::Upper],
            Polarity::Band => Side::cases(),
            Polarity::None => [],
        };

        return array_values(array_filter(
            $control->signals ?? [],
            fn (Signal $signal): bool => $signal->period->compareTo($latest) === 0 && in_array($signal->side, $sides, true),
        ));
    }

    private static function isBehindPriorYear(Measurement $measurement, Assessment $assessed): bool
    {
        $change = $assessed->change;

        return $measurement->definition->polarity !== Polarity::Band
            && $change !== null
            && $change->effect === Effect::Adverse
            && $change->percent !== null
            && $change->percent->abs()->compareTo(Exact::of(self::BEHIND_PERCENT)) > 0
            && $change->difference->abs()->compareTo(Exact::of($measurement->definition->materiality ?? 0)) > 0;
    }
}
