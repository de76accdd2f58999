<?php

declare(strict_types=1);

namespace Kybernet\Core\Records;

use Brick\Math\BigDecimal;
use Kybernet\Core\Measure\Exact;

/**
 * A range of a number that has a name, from above the band before it.
 */
final readonly class Band
{
    /** @param  BigDecimal|null  $upTo  itself included; null for all beyond */
    public function __construct(public ?BigDecimal $upTo, public string $name) {}

    /** Of the first band that holds a value it is part. */
    public function holds(Exact $value): bool
    {
        return $this->upTo === null || $value->compareTo(Exact::of($this->upTo)) <= 0;
    }
}
