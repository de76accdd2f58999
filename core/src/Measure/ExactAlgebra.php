<?php

declare(strict_types=1);

namespace Kybernet\Core\Measure;

/**
 * Arithmetic on exact figures.
 *
 * @implements Algebra<Exact>
 */
final readonly class ExactAlgebra implements Algebra
{
    /** @param  \Closure(string, list<string>): Exact  $worth  what a function of names gives, or under '' a name */
    public function __construct(private \Closure $worth) {}

    public function number(string $figure): Exact
    {
        return Exact::of($figure);
    }

    public function named(string $function, array $names): Exact
    {
        return ($this->worth)($function, $names);
    }

    public function negated(mixed $one): Exact
    {
        return $one->negated();
    }

    public function plus(mixed $one, mixed $other): Exact
    {
        return $one->plus($other);
    }

    public function times(mixed $one, mixed $other): Exact
    {
        return $one->times($other);
    }

    /** @throws NoValue when the divisor is zero */
    public function over(mixed $one, mixed $other): Exact
    {
        return $other->isZero() ? throw new NoValue('the formula divides by zero') : $one->dividedBy($other)->givenOut();
    }

    public function size(mixed $one): Exact
    {
        return $one->abs();
    }

    public function least(array $terms): Exact
    {
        return Accumulation::Minimum->combine($terms);
    }

    public function most(array $terms): Exact
    {
        return Accumulation::Maximum->combine($terms);
    }
}
