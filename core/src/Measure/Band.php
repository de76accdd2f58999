<?php

declare(strict_types=1);

namespace Kybernet\Core\Measure;

/**
 * A lower and an upper target, both part of what is good.
 */
final readonly class Band
{
    public function __construct(public Exact $low, public Exact $high) {}

    /** 0 inside, otherwise the signed distance to the limit that is broken: below 0 under the lower one. */
    public function difference(Exact $figure): Exact
    {
        $limit = $this->broken($figure);

        return $limit === null ? Exact::of(0) : $figure->minus($limit);
    }

    /** How far outside, never below 0. */
    public function distance(Exact $figure): Exact
    {
        return $this->difference($figure)->abs();
    }

    /** The limit that the figure lies beyond; null inside. */
    public function broken(Exact $figure): ?Exact
    {
        return match (true) {
            $figure->compareTo($this->low) < 0 => $this->low,
            $figure->compareTo($this->high) > 0 => $this->high,
            default => null,
        };
    }
}
