<?php

declare(strict_types=1);

namespace App\Console\Commands;

use App\Models\Role;
use App\Models\Unit;
use App\Models\User;
use Illuminate\Auth\AuthManager;
use Illuminate\Console\Command;
use Illuminate\Contracts\Http\Kernel;
use Illuminate\Database\Connection;
use Illuminate\Database\Eloquent\Builder;
use Illuminate\Http\Request;
use RuntimeException;

/**
 * Times the managers' screens on a generated organisation, inside a transaction that is undone: nothing of it stays.
 * Requests go through the whole application (routes, rights, reading, JSON), but not through the web server.
 */
final class BenchReview extends Command
{
    private const DEPARTMENTS = 7;

    private const WORKS_KPIS = 15;

    /** Works in each department, by size: about 50 measurements, ten and a hundred times as many. */
    private const WORKS = ['1' => 0, '10' => 5, '100' => 56];

    private const MONTHS = 36;

    private const REQUESTS = 60;

    protected $signature = 'bench:review {size=1 : 1, 10 or 100 times the demonstration}';

    protected $description = 'Time scorecard, ribbon, matrix, exceptions and a KPI page on a generated organisation';

    public function handle(Connection $database, Kernel $kernel, AuthManager $auth): int
    {
        $works = self::WORKS[$this->argument('size')] ?? throw new RuntimeException('There is 1, 10 and 100.');
        $user = User::query()->whereHas('grants', fn (Builder $grants): Builder => $grants->where('role', Role::Analyst))->firstOrFail();
        $database->beginTransaction();
        try {
            $root = Unit::query()->where('parent_id', null)->firstOrFail();
            $this->generate($database, $root, $works, self::MONTHS);
            $count = $database->table('kpi_unit')->whereIn('unit_id', Unit::query()->where('code', 'like', 'BENCH%')->select('id'))->count();
            $this->line(number_format($count).' measurements × '.self::MONTHS.' months, beside the demonstration');
            $guard = $auth->guard();
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
                $times = [];
                $queries = 0;
                $bytes = 0;
                for ($run = 0; $run <= self::REQUESTS; $run++) {
                    app()->forgetScopedInstances();
                    $guard->setUser($user);
                    $database->flushQueryLog();
                    $database->enableQueryLog();
                    $start = hrtime(true);
                    $response = $kernel->handle($this->request($address));
                    $times[] = (hrtime(true) - $start) / 1e6;
                    $queries = count($database->getQueryLog());
                    $bytes = strlen((string) $response->getContent());
                    if ($response->getStatusCode() !== 200) {
                        throw new RuntimeException("{$address} answered {$response->getStatusCode()}: ".substr((string) $response->getContent(), 0, 400));
                    }
                }
                $first = array_shift($times);
                sort($times);
                $this->line(sprintf('%-38s first %6.0f ms, then p50 %5.1f ms, p95 %5.1f ms; %2d queries, %d kB', $name, $first, $times[(int) (self::REQUESTS * 0.5)], $times[(int) ceil(self::REQUESTS * 0.95) - 1], $queries, $bytes / 1000));
            }
            $this->line(sprintf('peak memory %d MB', memory_get_peak_usage() / 1e6));
        } finally {
            $database->rollBack();
        }

        return self::SUCCESS;
    }

    private function request(string $address): Request
    {
        return Request::create(config()->string('app.url').$address, server: ['HTTP_ACCEPT' => 'application/json']);
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
        $places = "SELECT kpi_unit.id, (now() AT TIME ZONE 'UTC')::timestamp FROM kpi_unit JOIN units ON units.id = unit_id WHERE units.code LIKE 'BENCH%'";
        $series = "({$places}) AS place (id, at) CROSS JOIN generate_series('2026-08-01'::date - make_interval(months => ?), '2026-08-01'::date, '1 month') AS month";
        $figure = 'round((100 + place.id % 17 + 10 * sin(place.id + extract(month FROM month)) + 4 * sin(place.id * 7 + extract(epoch FROM month) / 1e7))::numeric, 1)';
        $database->insert("INSERT INTO readings (kpi_unit_id, period, actual, created_at, updated_at) SELECT place.id, month::date, {$figure}, place.at, place.at FROM {$series}", [$months - 1]);
        $database->insert("INSERT INTO targets (kpi_unit_id, period, target) SELECT place.id, month::date, 106 FROM {$series}", [$months - 1]);
        $database->statement('ANALYZE');
    }

    private function unit(string $code, string $kind, int $parent): int
    {
        return Unit::query()->create(['code' => $code, 'name' => $code, 'kind' => $kind, 'parent_id' => $parent, 'position' => 900])->id;
    }

    /** @param  list<int>  $units */
    private function measure(Connection $database, string $prefix, int $kpis, array $units): void
    {
        $department = $units[0] ?? null;
        if ($department === null) {
            return;
        }
        $database->insert(
            "INSERT INTO kpis (code, name, department_id, level, polarity, accumulation, decimals, measure)
             SELECT ? || n, ? || n, ?, 'departmental', CASE n % 2 WHEN 0 THEN 'higher' ELSE 'lower' END, CASE n % 3 WHEN 0 THEN 'sum' ELSE 'mean' END, 1, 'x' FROM generate_series(1, ?::int) n",
            [$prefix, "KPI {$prefix}", $department, $kpis],
        );
        foreach ($units as $unit) {
            $database->insert('INSERT INTO kpi_unit (kpi_id, unit_id, position) SELECT id, ?, id % 30000 FROM kpis WHERE code LIKE ? ORDER BY id', [$unit, "{$prefix}%"]);
        }
        $database->insert("INSERT INTO rule_sets (kpi_id, valid_from, reference, measure, green, amber) SELECT id, '2010-01-01', 'target', 'percent', 0, 5 FROM kpis WHERE code LIKE ?", ["{$prefix}%"]);
    }
}
