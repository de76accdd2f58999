<?php

declare(strict_types=1);

namespace Kybernet\Core\Measure;

/**
 * Why a period has no figure.
 */
enum Absence
{
    /** It is expected, and is not there. */
    case Missing;
    /** There is nothing of which one could be made, and that is known: none is expected, and nothing waits for it. */
    case Nothing;
    /** What it would be made of is not known for then: none is expected, and what needs it is incomplete. */
    case Unknown;
}
