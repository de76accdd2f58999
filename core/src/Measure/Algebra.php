<?php

declare(strict_types=1);

namespace Kybernet\Core\Measure;

/**
 * What arithmetic is carried out in: exact figures, or the text of a query that means the same.
 *
 * @template Term
 */
interface Algebra
{
    /** @return Term a number as it was written */
    public function number(string $figure): mixed;

    /**
     * What a function of names gives, or under '' a name.
     *
     * @param  list<string>  $names
     * @return Term
     */
    public function named(string $function, array $names): mixed;

    /**
     * @param  Term  $one
     * @return Term
     */
    public function negated(mixed $one): mixed;

    /**
     * @param  Term  $one
     * @param  Term  $other
     * @return Term
     */
    public function plus(mixed $one, mixed $other): mixed;

    /**
     * @param  Term  $one
     * @param  Term  $other
     * @return Term
     */
    public function times(mixed $one, mixed $other): mixed;

    /**
     * A written division: what it gives has 12 decimals.
     *
     * @param  Term  $one
     * @param  Term  $other
     * @return Term
     */
    public function over(mixed $one, mixed $other): mixed;

    /**
     * @param  Term  $one
     * @return Term
     */
    public function size(mixed $one): mixed;

    /**
     * @param  non-empty-list<Term>  $terms
     * @return Term
     */
    public function least(array $terms): mixed;

    /**
     * @param  non-empty-list<Term>  $terms
     * @return Term
     */
    public function most(array $terms): mixed;
}
