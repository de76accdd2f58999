<?php

declare(strict_types=1);

namespace Kybernet\Core\Compare;

use Kybernet\Core\Measure\Band;
use Kybernet\Core\Measure\Exact;
use Kybernet\Core\Status\Polarity;

/**
 * What one unit has of a KPI on a span, to be held beside what the others have.
 */
final readonly class PeerFigure
{
    /** @param  int  $reported  periods of the span that have a reading */
    public function __construct(public ?Exact $actual, public ?Exact $target = null, public ?Band $band = null, public int $reported = 1) {}

    public static function of(LikeForLike $span): self
    {
        return new self($span->actual, $span->goal?->target, $span->goal?->band, count($span->reported));
    }

    /** What it is ranked by: its figure, or how far it lies outside of its band; null where that is not there. */
    public function ranked(Polarity $polarity): ?Exact
    {
        return $polarity !== Polarity::Band || $this->actual === null ? $this->actual : $this->band?->distance($this->actual);
    }

    /** What that should reach: its target, or no distance from its band; null where it has none. */
    public function aim(Polarity $polarity): ?Exact
    {
        return match (true) {
            $polarity === Polarity::None => null,
            $polarity !== Polarity::Band => $this->target,
            default => $this->band === null ? null : Exact::of(0),
        };
    }
}
