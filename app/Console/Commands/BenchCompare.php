<?php

declare(strict_types=1);

namespace App\Console\Commands;

use App\Console\Concerns\GeneratesUnits;
use App\Models\Unit;
use Illuminate\Console\Command;
use Illuminate\Database\Connection;

/**
 * Times the comparison of many generated units, inside a transaction that is undone: nothing of it stays.
 */
final class BenchCompare extends Command
{
    use GeneratesUnits;

    private const MONTHS = 36;

    private const REQUESTS = 30;

    protected $signature = 'bench:compare {units=500} {kpis=8}';

    protected $description = 'Time the comparison of many generated units on several KPIs';

    public function handle(Connection $database): int
    {
        [$units, $kpis] = [max(1, (int) $this->argument('units')), max(1, min(8, (int) $this->argument('kpis')))];
        $database->beginTransaction();
        try {
            $database->select("SELECT set_config('kybernet.audit', 'off', true)");
            $above = $this->unit('BENCH0', 'department', Unit::query()->where('parent_id', null)->firstOrFail()->id);
            $this->measure($database, 'BC-', $kpis, array_map(fn (int $each): int => $this->unit("BENCH0-{$each}", 'product', $above), range(1, $units)));
            $this->fill($database, self::MONTHS);
            $this->line("{$units} units × {$kpis} KPIs");
            $view = 'period=2026-08&kpis='.implode(',', array_map(fn (int $kpi): string => "BC-{$kpi}", range(1, $kpis)));
            foreach ([
                'the month' => "comparison?{$view}&span=month",
                'the year to date' => "comparison?{$view}&span=yearToDate",
                'the month against a year before' => "comparison?{$view}&span=month&against=2025-08",
                'ranks over thirteen months' => 'comparison/ranks?period=2026-08&kpi=BC-1&span=month',
            ] as $name => $address) {
                $this->time($database, $name, "/api/units/BENCH0/{$address}", self::REQUESTS);
            }
            $this->line(sprintf('peak memory %d MB', memory_get_peak_usage() / 1e6));
        } finally {
            $database->rollBack();
        }

        return self::SUCCESS;
    }
}
