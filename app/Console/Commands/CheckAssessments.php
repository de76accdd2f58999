<?php

declare(strict_types=1);

namespace App\Console\Commands;

use App\Kept\AssessmentStore;
use Illuminate\Console\Command;

/**
 * Judges again all that is kept, and takes away what differs: it is judged anew when it is next asked for.
 */
final class CheckAssessments extends Command
{
    protected $signature = 'assessments:check';

    protected $description = 'Judge again what is kept of assessments, and put right what has drifted';

    public function handle(AssessmentStore $assessments): int
    {
        [$looked, $wrong] = $assessments->check();
        $this->line(number_format($looked).' kept assessments looked at, '.($wrong === 0 ? 'none of them wrong.' : number_format($wrong).' of them wrong and taken away.'));

        return $wrong === 0 ? self::SUCCESS : self::FAILURE;
    }
}
