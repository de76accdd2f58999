<?php

declare(strict_types=1);

namespace App\Kept;

use Illuminate\Contracts\Queue\ShouldQueue;
use Illuminate\Foundation\Queue\Queueable;

/**
 * Judges and keeps what is not kept yet; what is kept already costs next to nothing, so it may come twice.
 */
final class RefreshJob implements ShouldQueue
{
    use Queueable;

    public int $tries = 2;

    public int $timeout = 900;

    public function handle(AssessmentStore $assessments): void
    {
        $assessments->sweep();
        $assessments->refresh();
    }
}
