<?php

declare(strict_types=1);

namespace App\Figures;

/**
 * What became of a cell.
 */
final readonly class Written
{
    /**
     * @param  Standing  $standing  what stood there when its turn came
     * @param  string  $reason  why it was refused, for the person
     */
    public function __construct(public Outcome $outcome, public Standing $standing, public string $reason = '') {}
}
