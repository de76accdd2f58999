<?php

declare(strict_types=1);

namespace App\Sources;

use App\Figures\CountedWriter;
use Illuminate\Contracts\Queue\ShouldQueue;
use Illuminate\Database\Connection;
use Illuminate\Foundation\Queue\Queueable;

/** Counts again, one KPI after the other, those of which more changed than anybody waits for. */
final class CountJob implements ShouldQueue
{
    use Queueable;

    public int $tries = 3;

    public int $timeout = 900;

    public function handle(Connection $database, CountedWriter $writer): void
    {
        foreach ($database->table('counted_kpis')->where('is_due', true)->orderBy('kpi_id')->pluck('kpi_id') as $kpi) {
            $database->transaction(fn () => $writer([is_int($kpi) ? $kpi : 0]));
        }
    }
}
