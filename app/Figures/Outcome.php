<?php

declare(strict_types=1);

namespace App\Figures;

enum Outcome
{
    case Saved;
    case Same;
    case Conflict;
    case Refused;
}
