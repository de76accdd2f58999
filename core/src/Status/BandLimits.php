<?php

declare(strict_types=1);

namespace Kybernet\Core\Status;

use Brick\Math\BigDecimal;
use Kybernet\Core\Measure\Band;
use Kybernet\Core\Measure\Exact;

/**
 * Fixed levels of a band: green inside, amber within a margin outside.
 */
final readonly class BandLimits
{
    /**
     * @param  BigDecimal  $marginLow  how far amber reaches below low
     * @param  BigDecimal  $marginHigh  how far amber reaches above high
     */
    public function __construct(
        public BigDecimal $low,
        public BigDecimal $high,
        public BigDecimal $marginLow,
        public BigDecimal $marginHigh,
    ) {}

    /** Inside which a single figure has the colour, grown to the periods that are compared. */
    public function of(Status $colour, int $factor): Band
    {
        $isGreen = $colour === Status::Green;

        return new Band(
            Exact::of($isGreen ? $this->low : $this->low->minus($this->marginLow))->times($factor),
            Exact::of($isGreen ? $this->high : $this->high->plus($this->marginHigh))->times($factor),
        );
    }
}
