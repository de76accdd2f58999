<?php

declare(strict_types=1);

namespace Kybernet\Core\Status;

/**
 * How a status stands against the one before it. Only two colours can be compared: from or to a status without a
 * colour nothing moved.
 */
enum Movement: string
{
    case Worse = 'worse';
    /** Back on course from amber or red. */
    case Recovered = 'recovered';
    /** Better, but not yet on course. */
    case Better = 'better';
    case None = 'none';

    public static function between(Status $before, Status $now): self
    {
        $from = $before->score();
        $to = $now->score();

        return match (true) {
            $from === null, $to === null, $from === $to => self::None,
            $to < $from => self::Worse,
            $now === Status::Green => self::Recovered,
            default => self::Better,
        };
    }
}
