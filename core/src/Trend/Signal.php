<?php

declare(strict_types=1);

namespace Kybernet\Core\Trend;

use Kybernet\Core\Calendar\Period;

/**
 * Something that chance alone seldom does, told at the point that completes it.
 */
final readonly class Signal
{
    public function __construct(public Period $period, public SignalRule $rule, public Side $side) {}

    /** As it is said in a sentence. */
    public function words(): string
    {
        $high = $this->side === Side::Upper;

        return match ($this->rule) {
            SignalRule::OutsideLimits => $high ? 'above its upper control limit' : 'below its lower control limit',
            SignalRule::OneSide => $high ? '8 in a row above the usual level' : '8 in a row below the usual level',
            SignalRule::SteadyRun => $high ? '6 in a row rising' : '6 in a row falling',
            SignalRule::TwoOfThree => $high ? '2 of 3 close to the upper control limit' : '2 of 3 close to the lower control limit',
        };
    }
}
