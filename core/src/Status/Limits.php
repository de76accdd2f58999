<?php

declare(strict_types=1);

namespace Kybernet\Core\Status;

use Brick\Math\BigDecimal;
use Kybernet\Core\Measure\Exact;

/**
 * Where green and amber end on one side: distances from a reference, shares of it, or levels, as the measure has it.
 */
final readonly class Limits
{
    public function __construct(public BigDecimal $green, public BigDecimal $amber) {}

    /** Of a single figure, grown to the periods that are compared. */
    public function of(Status $colour, int $factor): Exact
    {
        return Exact::of($colour === Status::Green ? $this->green : $this->amber)->times($factor);
    }
}
