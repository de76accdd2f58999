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
    /** The actual over the periods that have a target too: what the target is held against. */
    public ?Exact $compared;

    /** @param  int  $reported  periods of the span that have a reading */
    public function __construct(public ?Exact $actual, public ?Exact $target = null, public ?Band $band = null, public int $reported = 1, ?Exact $compared = null)
    {
        $this->compared = $compared ?? $actual;
    }

    public static function of(LikeForLike $span): self
    {
        return new self($span->actual, $span->goal?->target, $span->goal?->band, count($span->reported), $span->comparedActual);
    }

    /** What it is ranked by: its figure, or how far it lies outside of its band; null where that is not there. */
    public function ranked(Polarity $polarity): ?Exact
    {
        return $polarity !== Polarity::Band || $this->actual === null ? $this->actual : $this->band?->distance($this->actual);
    }

    /** Whether it is where it should be, at its target or inside of its band; null where it has neither, or no figure. */
    public function meets(Polarity $polarity): ?bool
    {
        return match (true) {
            $polarity === Polarity::None || $this->compared === null => null,
            $polarity === Polarity::Band => $this->band === null ? null : $this->band->broken($this->compared) === null,
            default => $this->target === null ? null : $polarity->adverse($this->compared->minus($this->target))->sign() <= 0,
        };
    }

    /** The distance to what it should reach, as what would have to be added: to its target, or to the nearer limit of its band; 0 where it meets it. */
    public function short(Polarity $polarity): ?Exact
    {
        $aim = $polarity === Polarity::Band ? ($this->compared === null ? null : $this->band?->broken($this->compared)) : $this->target;

        return match ($this->meets($polarity)) {
            null => null,
            true => Exact::of(0),
            false => $aim === null || $this->compared === null ? null : $aim->minus($this->compared),
        };
    }

    /** The distance to a level that all might reach; 0 where it is reached. */
    public function shortOf(Exact $level, Polarity $polarity): ?Exact
    {
        $distance = $this->actual === null ? null : $level->minus($this->actual);

        return $distance === null || $polarity->adverse($distance)->sign() < 0 ? $distance : Exact::of(0);
    }
}
