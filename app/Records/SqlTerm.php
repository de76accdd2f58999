<?php

declare(strict_types=1);

namespace App\Records;

/**
 * A number as the database works it out: what a query gives, ÷ a divisor that is known beforehand. What is counted in
 * seconds and shown in days is exact so; the division itself waits until all is summed.
 */
final readonly class SqlTerm
{
    /**
     * @param  string  $sql  numeric, null where it cannot be worked out
     * @param  positive-int  $divisor
     */
    public function __construct(public string $sql, public int $divisor = 1) {}

    /** The same figure over another divisor, of which its own is a factor. */
    public function over(int $divisor): string
    {
        return $divisor === $this->divisor ? $this->sql : "({$this->sql} * ".intdiv($divisor, $this->divisor).')';
    }
}
