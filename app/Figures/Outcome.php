<?php

declare(strict_types=1);

namespace App\Figures;

/**
 * What became of a cell that somebody wanted: written, there already, changed by somebody else since it was seen, or
 * not theirs to write so.
 */
enum Outcome
{
    case Saved;
    case Same;
    case Conflict;
    case Refused;
}
