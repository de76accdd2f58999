<?php

declare(strict_types=1);

namespace App\Console\Commands;

use App\Kept\AssessmentStore;
use Illuminate\Console\Command;

/**
 * Judges what is not kept yet, so that the first to look does not have to wait for it.
 */
final class RefreshAssessments extends Command
{
    protected $signature = 'assessments:refresh';

    protected $description = 'Judge and keep what is not kept yet of the latest year, such as after a large import';

    public function handle(AssessmentStore $assessments): int
    {
        $assessments->refresh();

        return self::SUCCESS;
    }
}
