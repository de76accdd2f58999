<?php

declare(strict_types=1);

namespace App\Figures;

/** How far a reading has come. */
enum ReadingStage: string
{
    case Entered = 'entered';

    /** handed in by who entered it */
    case Submitted = 'submitted';
}
