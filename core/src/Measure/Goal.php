<?php

declare(strict_types=1);

namespace Kybernet\Core\Measure;

/**
 * What a period or a span aims at: a figure, or for a band the two it should lie between.
 */
final readonly class Goal
{
    private function __construct(public ?Exact $target, public ?Band $band, public TargetFrom $from) {}

    public static function target(Exact $target, TargetFrom $from): self
    {
        return new self($target, null, $from);
    }

    public static function band(Band $band, TargetFrom $from): self
    {
        return new self(null, $band, $from);
    }

    /**
     * A figure, or the two of a band; null where one of them is not there.
     *
     * @param  bool  $isBand  whether both are needed
     */
    public static function of(?Exact $lower, ?Exact $upper, bool $isBand, TargetFrom $from): ?self
    {
        return match (true) {
            $lower === null => null,
            ! $isBand => self::target($lower, $from),
            $upper === null => null,
            default => self::band(new Band($lower, $upper), $from),
        };
    }

    /**
     * Several as one.
     *
     * @param  list<self>  $goals  all of them figures, or all of them bands; earliest first
     */
    public static function combine(array $goals, Accumulation $rule): ?self
    {
        $lower = array_map(fn (self $goal): Exact => $goal->lower(), $goals);
        $upper = Exact::known(array_map(fn (self $goal): ?Exact => $goal->band?->high, $goals));

        return self::of(
            $lower === [] ? null : $rule->combine($lower),
            $upper === [] ? null : $rule->combine($upper),
            $upper !== [],
            TargetFrom::together($goals),
        );
    }

    /** The figure, or the lower one of a band. */
    public function lower(): Exact
    {
        return $this->target ?? $this->band->low ?? throw new \LogicException('A goal has a figure or a band.');
    }
}
