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
    private Exact $exactGreen;

    private Exact $exactAmber;

    public function __construct(public BigDecimal $green, public BigDecimal $amber)
    {
        $this->exactGreen = Exact::of($green);
        $this->exactAmber = Exact::of($amber);
    }

    /** Of a single figure, grown to the periods that are compared. */
    public function of(Status $colour, int $factor): Exact
    {
        $limit = $colour === Status::Green ? $this->exactGreen : $this->exactAmber;

        return $factor === 1 ? $limit : $limit->times($factor);
    }
}
