<?php

declare(strict_types=1);

namespace App\Logbook;

/**
 * A cell as a person typed it, with what they saw there before.
 */
final readonly class TypedCell
{
    /**
     * @param  int  $measurement  identity of the KPI in its unit
     * @param  string  $period  in the KPI's own frequency
     * @param  string  $typed  blank empties the cell
     * @param  string  $was  what stood there when it was read, as this person would type it
     * @param  string  $reason  that a colour is given with, where it has none yet
     */
    public function __construct(public int $measurement, public string $period, public string $typed, public string $was, public string $reason = '') {}
}
