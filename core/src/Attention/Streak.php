<?php

declare(strict_types=1);

namespace Kybernet\Core\Attention;

use Kybernet\Core\Calendar\Frequency;
use Kybernet\Core\Status\Status;

/**
 * The run of equal colours in single periods up to the chosen one. A period without a colour neither ends nor
 * lengthens it.
 */
final readonly class Streak
{
    private function __construct(public Status $status, public int $length, public Frequency $frequency) {}

    public static function of(Past $past): ?self
    {
        $colour = null;
        $length = 0;
        foreach ($past->colours() as $status) {
            $colour ??= $status;
            if ($status !== $colour) {
                break;
            }
            $length++;
        }

        return $colour === null ? null : new self($colour, $length, $past->latest->frequency);
    }
}
