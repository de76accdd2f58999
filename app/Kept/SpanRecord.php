<?php

declare(strict_types=1);

namespace App\Kept;

use App\Views\CourseView;
use App\Views\Difference;
use App\Views\ExceptionReason;
use App\Views\Shown;
use App\Views\TrackView;
use App\Views\WakePoint;
use App\Views\ZonesView;

/**
 * How a judged span is laid out where it is kept: lists of plain values in a fixed order, whatever the API calls them.
 *
 * A figure is its exact form, digits and suffix; a distance its figure, percent, whether it is in points, and effect.
 *
 * @phpstan-type Figure array{string, string, string}
 * @phpstan-type Distance array{Figure, string|null, bool, string}
 */
final readonly class SpanRecord
{
    public static function write(AssessedSpan $span): string
    {
        $figure = fn (?Shown $shown): ?array => $shown === null ? null : [$shown->exact, $shown->digits, $shown->suffix];
        $distance = fn (?Difference $of): ?array => $of === null ? null : [$figure($of->difference), $of->percent, $of->points, $of->effect];
        $zones = $span->zones;

        return json_encode([
            $span->status,
            $span->stretched,
            $span->called,
            array_map($figure, [$span->actual, $span->target, $span->prior]),
            $span->instead,
            array_map($distance, [$span->variance, $span->change, $span->step]),
            $zones === null ? null : [$zones->higherIsBetter, $zones->green, $zones->amber, $zones->greenLow, $zones->amberLow],
            $span->course === null ? null : [$span->course->now, $span->course->before, $span->course->prior, $span->course->target],
            $span->track === null ? null : [$figure($span->track->low), $figure($span->track->high), $span->track->now, $span->track->before, $span->track->prior],
            array_map(fn (WakePoint $point): array => [$point->period, $point->actual, $point->target], $span->wake),
            $span->monthStatus,
            $span->expected,
            $span->reported,
            $span->asOf,
            array_map(fn (ExceptionReason $reason): array => [$reason->code, $reason->text, $reason->points], $span->reasons),
            $span->goodNews,
            $span->latest,
            $span->band === null ? null : array_map($figure, $span->band),
            $span->compared,
        ], JSON_THROW_ON_ERROR | JSON_UNESCAPED_UNICODE);
    }

    public static function read(string $record): AssessedSpan
    {
        /** @var array{string, bool, bool, list<Figure|null>, string, list<Distance|null>, array{bool, string, string, string|null, string|null}|null, array{float|int|null, float|int|null, float|int|null, float|int|null}|null, array{Figure, Figure, float|int|null, float|int|null, float|int|null}|null, list<array{string, string|null, string|null}>, string, int, int, string|null, list<array{string, string, int}>, string|null, string|null, array{Figure, Figure}|null, string|null} $kept as it was written */
        $kept = json_decode($record, true, flags: JSON_THROW_ON_ERROR);
        [$status, $stretched, $called, $figures, $instead, $distances, $zones, $course, $track, $wake, $monthStatus, $expected, $reported, $asOf, $reasons, $goodNews, $latest, $band, $compared] = $kept;
        [$actual, $target, $prior] = array_map(fn (?array $figure): ?Shown => $figure === null ? null : new Shown(...$figure), $figures);
        [$variance, $change, $step] = array_map(fn (?array $of): ?Difference => $of === null ? null : new Difference(new Shown(...$of[0]), $of[1], $of[2], $of[3]), $distances);

        return new AssessedSpan(
            $status,
            $stretched,
            $called,
            $actual,
            $instead,
            $target,
            $prior,
            $variance,
            $change,
            $step,
            $zones === null ? null : new ZonesView(...$zones),
            $course === null ? null : new CourseView(...$course),
            $track === null ? null : new TrackView(new Shown(...$track[0]), new Shown(...$track[1]), ...array_slice($track, 2)),
            array_map(fn (array $point): WakePoint => new WakePoint(...$point), $wake),
            $monthStatus,
            $expected,
            $reported,
            $asOf,
            array_map(fn (array $reason): ExceptionReason => new ExceptionReason(...$reason), $reasons),
            $goodNews,
            $latest,
            $band === null ? null : [new Shown(...$band[0]), new Shown(...$band[1])],
            $compared,
        );
    }
}
