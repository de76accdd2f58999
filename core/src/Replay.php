<?php

declare(strict_types=1);

namespace Kybernet\Core;

use Kybernet\Core\Calendar\Period;
use Kybernet\Core\Measure\Measurement;
use Kybernet\Core\Status\Counts;
use Kybernet\Core\Status\Status;

/**
 * The colours of the latest periods twice: as they were judged, and as they would have been under other limits. It is
 * what people look at while they agree what good looks like.
 */
final readonly class Replay
{
    /** So many periods are looked back on: two years of months. */
    public const PERIODS = 24;

    /**
     * @param  list<Period>  $periods  earliest first
     * @param  list<Status>  $asIs
     * @param  list<Status>  $asTyped
     */
    private function __construct(public array $periods, public array $asIs, public array $asTyped) {}

    /**
     * @param  Measurement  $asTyped  the same figures under the definition that is tried
     * @param  positive-int  $count  how many periods at most
     */
    public static function of(Scorecard $scorecard, Measurement $asIs, Measurement $asTyped, Period $chosen, int $count): self
    {
        // Before the first figure there is nothing to look back on.
        $first = $asTyped->actuals->earliest();
        $periods = array_values(array_filter(
            $scorecard->timeline->upTo($scorecard->timeline->latest($asTyped->definition->frequency, $chosen), $count),
            fn (Period $period): bool => $first !== null && strcmp($period->key(), $first) >= 0,
        ));
        $statuses = fn (Measurement $measurement): array => array_map(fn (Period $period): Status => $scorecard->periodStatus($measurement, $period), $periods);

        return new self($periods, $statuses($asIs), $statuses($asTyped));
    }

    /** The latest of the periods with a reading; null where none has one. */
    public function latest(Measurement $measurement): ?Period
    {
        $read = array_values(array_filter($this->periods, $measurement->actuals->has(...)));

        return $read === [] ? null : $read[count($read) - 1];
    }

    /**
     * Whether a colour would change, come or go. Periods without a colour either way are no news.
     *
     * @param  int  $place  of the period
     */
    public function changes(int $place): bool
    {
        [$is, $would] = [$this->asIs[$place], $this->asTyped[$place]];

        return $is !== $would && ($is->isColour() || $would->isColour());
    }

    /** What the other limits would change, in a sentence. */
    public function words(): string
    {
        $changed = array_values(array_filter(array_keys($this->periods), $this->changes(...)));
        $kinds = array_unique(array_map(fn (int $place): string => "from {$this->asIs[$place]->inPassing()} to {$this->asTyped[$place]->inPassing()}", $changed));
        $what = $this->periods === [] ? 'period' : $this->periods[0]->frequency->value;
        $count = count($changed);

        return match (true) {
            $count === 0 => "No {$what} would change.",
            $count === 1 => "One {$what} would change, {$kinds[0]}.",
            count($kinds) === 1 => "{$count} {$what}s would change, all {$kinds[0]}.",
            default => "{$count} {$what}s would change.",
        };
    }

    public function countsAsIs(): Counts
    {
        return Counts::of($this->asIs);
    }

    public function countsAsTyped(): Counts
    {
        return Counts::of($this->asTyped);
    }
}
