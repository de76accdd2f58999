<?php

declare(strict_types=1);

use App\Import\CleanUp;
use App\Import\ImportSteps;
use App\Kept\AssessmentStore;
use Illuminate\Database\Connection;
use Illuminate\Support\Facades\Schedule;

Schedule::call(fn (ImportSteps $steps) => $steps->resume())->name('resume-imports')->everyTenSeconds();
Schedule::call(fn (AssessmentStore $assessments) => $assessments->sweep())->name('sweep-assessments')->everyMinute();
Schedule::call(fn (Connection $database) => $database->select('SELECT kybernet_end_trail()'))->name('end-trail')->daily();
Schedule::call(fn (CleanUp $cleanUp) => $cleanUp())->name('clean-up-uploads')->hourly();
