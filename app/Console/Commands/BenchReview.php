<?php

declare(strict_types=1);

namespace App\Console\Commands;

use App\Console\Concerns\GeneratesUnits;
use App\Models\Unit;
use Illuminate\Console\Command;
use Illuminate\Database\Connection;
use RuntimeException;

/**
 * Times the managers' screens on a generated organisation, inside a transaction that is undone: nothing of it stays.
 */
final class BenchReview extends Command
{
    use GeneratesUnits;

    private const DEPARTMENTS = 7;

    private const WORKS_KPIS = 15;

    /** Works in each department, by size: about 50 measurements, ten and a hundred times as many. */
    private const WORKS = ['1' => 0, '10' => 5, '100' => 56];

    private const MONTHS = 36;

    private const REQUESTS = 60;

    protected $signature = 'bench:review {size=1 : 1, 10 or 100 times the demonstration}';

    protected $description = 'Time scorecard, ribbon, matrix, exceptions and a KPI page on a generated organisation';

    public function handle(Connection $database): int
    {
        $works = self::WORKS[$this->argument('size')] ?? throw new RuntimeException('There is 1, 10 and 100.');
        $database->beginTransaction();
        try {
            $root = Unit::query()->where('parent_id', null)->firstOrFail();
            $this->generate($database, $root, $works, self::MONTHS);
            $count = $database->table('kpi_unit')->whereIn('unit_id', Unit::query()->where('code', 'like', 'BENCH%')->select('id'))->count();
            $this->line(number_format($count).' measurements × '.self::MONTHS.' months, beside the demonstration');
            $view = 'period=2026-08&span=yearToDate';
            foreach ([
                'scorecard of the organisation' => "/api/units/{$root->code}/scorecard?{$view}",
                'scorecard of a department' => "/api/units/BENCH1/scorecard?{$view}",
                'ribbon of the organisation' => "/api/units/{$root->code}/ribbon?period=2026-08",
                'exceptions of the organisation' => "/api/units/{$root->code}/exceptions?{$view}",
                'matrix, units × KPIs of a department' => "/api/units/BENCH1/matrix?{$view}&crossing=units-kpis",
                'matrix, units × 36 months of a KPI' => "/api/units/BENCH1/matrix?{$view}&crossing=units-months&kpi=BW1-1&months=36",
                'matrix, roll-ups × 12 months' => "/api/units/{$root->code}/matrix?{$view}&crossing=units-months",
                'page of a KPI' => "/api/units/BENCH1/kpis/BD1-1?{$view}",
            ] as $name => $address) {
                $this->time($database, $name, $address, self::REQUESTS);
            }
            $this->line(sprintf('peak memory %d MB', memory_get_peak_usage() / 1e6));
        } finally {
            $database->rollBack();
        }

        return self::SUCCESS;
    }

    private function generate(Connection $database, Unit $root, int $works, int $months): void
    {
        $database->select("SELECT set_config('kybernet.audit', 'off', true)");
        for ($department = 1; $department <= self::DEPARTMENTS; $department++) {
            $unit = $this->unit("BENCH{$department}", 'department', $root->id);
            $this->measure($database, "BD{$department}-", 7, [$unit]);
            $below = [];
            for ($each = 1; $each <= $works; $each++) {
                $below[] = $this->unit("BENCH{$department}-{$each}", 'works', $unit);
            }
            $this->measure($database, "BW{$department}-", self::WORKS_KPIS, $below);
        }
        $this->fill($database, $months);
    }
}
