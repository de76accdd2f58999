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

    /** What would have to be added to reach what it should: its target, or the nearer limit of its band; 0 where it meets it, null where it has neither. */
    public function short(Polarity $polarity): ?Exact
    {
        $meets = $this->meets($polarity);
        if ($meets !== false || $this->compared === null) {
            return $meets === null ? null : Exact::of(0);
        }

        return ($polarity === Polarity::Band ? $this->band?->broken($this->compared) : $this->target)?->minus($this->compared);
    }

    /** The same for a level that all might reach; null where it has no figure. */
    public function shortOf(Exact $level, Polarity $polarity): ?Exact
    {
        return match (true) {
            $this->actual === null => null,
            $this->actual->compareTo($level) * ($polarity === Polarity::Higher ? -1 : 1) > 0 => $level->minus($this->actual),
            default => Exact::of(0),
        };
    }
}
