<?php

declare(strict_types=1);

namespace Kybernet\Core\Status;

/**
 * What a rule set compares the actual with.
 */
enum Reference: string
{
    /** The target of the span. */
    case Target = 'target';
    /** Nothing: fixed levels. */
    case None = 'none';

    /** Whether a span without a target cannot be judged. */
    public function needsTarget(): bool
    {
        return $this === self::Target;
    }

    /** The one way of measuring how far off a figure is that goes with the reference. */
    public function goesWith(Deviation $measure): bool
    {
        return match ($this) {
            self::Target => $measure === Deviation::Percent,
            self::None => $measure === Deviation::Level,
        };
    }
}
