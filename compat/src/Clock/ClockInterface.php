<?php

declare(strict_types=1);

namespace Symfony\Component\Clock;

use Psr\Clock\ClockInterface as PsrClockInterface;

/** The contract that the date library implements: a PSR-20 clock that can also sleep and change its zone. */
interface ClockInterface extends PsrClockInterface
{
    /** @param  float|int  $seconds how long to wait, in seconds */
    public function sleep(float|int $seconds): void;

    /** @param  \DateTimeZone|string  $timezone the zone of the clock returned */
    public function withTimeZone(\DateTimeZone|string $timezone): static;
}
