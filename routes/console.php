<?php

declare(strict_types=1);

use App\Import\CleanUp;
use App\Kept\AssessmentStore;
use App\Sources\AskSources;
use App\Sources\CountedKpis;
use App\Sources\ForgetFiles;
use App\Sources\Loads;
use Illuminate\Database\Connection;
use Illuminate\Support\Facades\Schedule;

foreach (['imports', 'loads'] as $files) {
    Schedule::call(fn () => resolve("steps-of-{$files}")->resume())->name("resume-{$files}")->everyTenSeconds();
}
Schedule::call(fn (Loads $loads) => $loads->goOnLeft())->name('go-on-with-loads')->everyMinute();
Schedule::call(fn (AskSources $sources) => $sources->due())->name('ask-sources')->everyThirtySeconds();
Schedule::call(fn (AskSources $sources) => $sources->folders())->name('take-from-folders')->everyTenSeconds();
Schedule::call(fn (ForgetFiles $forget) => $forget())->name('forget-files-of-records')->hourly();
Schedule::call(fn (CountedKpis $counted) => $counted->due())->name('count-again')->everyTenSeconds();
Schedule::call(fn (Connection $database) => $database->select('SELECT kybernet_sweep_records()'))->name('sweep-records')->hourly();
Schedule::call(fn (AssessmentStore $assessments) => $assessments->sweep())->name('sweep-assessments')->everyMinute();
Schedule::call(fn (Connection $database) => $database->select('SELECT kybernet_end_trail()'))->name('end-trail')->daily();
Schedule::call(fn (CleanUp $cleanUp) => $cleanUp())->name('clean-up-uploads')->hourly();
