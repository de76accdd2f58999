<?php

declare(strict_types=1);

namespace Kybernet\Core\Trend;

use Kybernet\Core\Calendar\Period;

/**
 * Something that chance alone seldom does, told at the point that completes it.
 */
final readonly class Signal
{
    /**
     * @param  string  $rule  `outside-limits`, `one-side`, `steady-run` or `two-of-three`
     * @param  string  $side  `upper` or `lower`; of a steady run, where it is heading
     */
    public function __construct(public Period $period, public string $rule, public string $side) {}

    /** As it is said in a sentence. */
    public function words(): string
    {
        $high = $this->side === 'upper';

        return match ($this->rule) {
            'outside-limits' => $high ? 'above its upper control limit' : 'below its lower control limit',
            'one-side' => $high ? '8 in a row above the usual level' : '8 in a row below the usual level',
            'steady-run' => $high ? '6 in a row rising' : '6 in a row falling',
            default => $high ? '2 of 3 close to the upper control limit' : '2 of 3 close to the lower control limit',
        };
    }
}
