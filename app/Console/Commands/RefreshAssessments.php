<?php

declare(strict_types=1);

namespace App\Console\Commands;

use App\Figures\AssessmentStore;
use App\Support\Month;
use Illuminate\Console\Command;
use Illuminate\Database\Connection;
use Kybernet\Core\Calendar\Span;

/**
 * Judges what is not kept yet, so that the first to look does not have to wait for it.
 */
final class RefreshAssessments extends Command
{
    private const MONTHS = 36;

    private const BATCH = 400;

    protected $signature = 'assessments:refresh';

    protected $description = 'Judge and keep what is not kept yet: 36 months of statuses, and all spans of the latest month';

    public function handle(AssessmentStore $assessments, Connection $database): int
    {
        $latest = $database->table('readings')->whereNotNull('actual')->max('period');
        if (! is_string($latest)) {
            return self::SUCCESS;
        }
        $month = Month::ofDate($latest);
        $months = $month->plus(1 - self::MONTHS)->to($month);
        foreach (array_chunk($database->table('kpi_unit')->orderBy('id')->pluck('id')->all(), self::BATCH) as $batch) {
            $assessments->months($batch, $months);
            foreach (Span::cases() as $span) {
                $assessments->spans($batch, [$month], $span);
            }
        }

        return self::SUCCESS;
    }
}
