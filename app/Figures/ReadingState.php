<?php

declare(strict_types=1);

namespace App\Figures;

/**
 * How far a reading is: entered or handed in, and the day up to which it counts where its period was not over.
 */
final readonly class ReadingState
{
    public function __construct(public ReadingStage $stage, public ?string $asOf) {}
}
