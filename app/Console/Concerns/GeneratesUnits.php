<?php

declare(strict_types=1);

namespace App\Console\Concerns;

use App\Models\Role;
use App\Models\Unit;
use App\Models\User;
use App\Support\PgArray;
use Illuminate\Auth\AuthManager;
use Illuminate\Contracts\Http\Kernel;
use Illuminate\Database\Connection;
use Illuminate\Database\Eloquent\Builder;
use Illuminate\Http\Request;
use RuntimeException;

/**
 * A generated organisation beside the demonstration, and requests against it that are timed. They go through the whole
 * application (routes, rights, reading, JSON), but not through the web server.
 */
trait GeneratesUnits
{
    /** Times so many requests after a first one, as an analyst, and tells of each address. */
    private function time(Connection $database, string $name, string $address, int $requests): void
    {
        [$kernel, $guard] = [app(Kernel::class), app(AuthManager::class)->guard()];
        $user = User::query()->whereHas('grants', fn (Builder $grants): Builder => $grants->where('role', Role::Analyst))->firstOrFail();
        $times = [];
        $queries = $bytes = 0;
        for ($run = 0; $run <= $requests; $run++) {
            app()->forgetScopedInstances();
            $guard->setUser($user);
            $database->flushQueryLog();
            $database->enableQueryLog();
            $start = hrtime(true);
            $response = $kernel->handle(Request::create(config()->string('app.url').$address, server: ['HTTP_ACCEPT' => 'application/json']));
            $times[] = (hrtime(true) - $start) / 1e6;
            $queries = count($database->getQueryLog());
            $bytes = strlen((string) $response->getContent());
            if ($response->getStatusCode() !== 200) {
                throw new RuntimeException("{$address} answered {$response->getStatusCode()}: ".substr((string) $response->getContent(), 0, 400));
            }
        }
        $first = array_shift($times);
        sort($times);
        $this->line(sprintf('%-38s first %6.0f ms, then p50 %5.1f ms, p95 %5.1f ms; %2d queries, %d kB', $name, $first, $times[(int) ($requests * 0.5)], $times[(int) ceil($requests * 0.95) - 1], $queries, $bytes / 1000));
    }

    /** Figures of so many months, and targets, wherever anything is measured in a generated unit. */
    private function fill(Connection $database, int $months): void
    {
        $places = "SELECT kpi_unit.id, (now() AT TIME ZONE 'UTC')::timestamp FROM kpi_unit JOIN units ON units.id = unit_id WHERE units.code LIKE 'BENCH%'";
        $series = "({$places}) AS place (id, at) CROSS JOIN generate_series('2026-08-01'::date - make_interval(months => ?), '2026-08-01'::date, '1 month') AS month";
        $figure = 'round((100 + place.id % 17 + 10 * sin(place.id + extract(month FROM month)) + 4 * sin(place.id * 7 + extract(epoch FROM month) / 1e7))::numeric, 1)';
        $database->insert("INSERT INTO readings (kpi_unit_id, period, actual, created_at, updated_at) SELECT place.id, month::date, {$figure}, place.at, place.at FROM {$series}", [$months - 1]);
        $database->insert("INSERT INTO targets (kpi_unit_id, period, target) SELECT place.id, month::date, 106 FROM {$series}", [$months - 1]);
        // Inside of the transaction that made the marks nothing that is kept would ever be younger than they are.
        $database->table('assessment_marks')->delete();
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
        // In one go: each statement marks what it touches, and a mark a unit would be many.
        $database->insert('INSERT INTO kpi_unit (kpi_id, unit_id, position) SELECT kpis.id, unit.id, kpis.id % 30000 FROM kpis CROSS JOIN unnest(?::bigint[]) WITH ORDINALITY AS unit (id, place) WHERE code LIKE ? ORDER BY unit.place, kpis.id', [PgArray::of($units), "{$prefix}%"]);
        $database->insert("INSERT INTO rule_sets (kpi_id, valid_from, reference, measure, green, amber) SELECT id, '2010-01-01', 'target', 'percent', 0, 5 FROM kpis WHERE code LIKE ?", ["{$prefix}%"]);
    }
}
