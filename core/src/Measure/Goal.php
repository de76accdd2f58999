<?php

declare(strict_types=1);

namespace Kybernet\Core\Measure;

/**
 * What a span aims at: a figure, or for a band the two it should lie between.
 */
final readonly class Goal
{
    /** @param  bool  $fromYear  whether any of it comes from the figure set for a whole year */
    public function __construct(public ?Exact $target, public ?Band $band, public bool $fromYear) {}
}
