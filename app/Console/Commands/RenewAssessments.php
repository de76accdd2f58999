<?php

declare(strict_types=1);

namespace App\Console\Commands;

use App\Kept\AssessmentStore;
use Illuminate\Console\Command;

/**
 * Part of every start: what another version of the rules, or another database server, has judged is not read here.
 */
final class RenewAssessments extends Command
{
    protected $signature = 'assessments:renew';

    protected $description = 'Take away kept assessments that another version of the rules has made';

    public function handle(AssessmentStore $assessments): int
    {
        $assessments->renew();

        return self::SUCCESS;
    }
}
