<?php

declare(strict_types=1);

use Illuminate\Support\Facades\DB;

/** @return array<string, mixed> like units beside each other */
function comparison(mixed $test, string $unit, string $more = '', string $account = 'analyst'): array
{
    return $test->as($account)->getJson("/api/units/{$unit}/comparison?period=2026-08&span=month{$more}")->assertOk()->json();
}

/**
 * @param  array<string, mixed>  $page
 * @return array<string, array<string, mixed>|null> cells of a KPI by unit
 */
function cellsOf(array $page, string $kpi): array
{
    return array_combine(array_column($page['units'], 'code'), collect($page['kpis'])->firstWhere('code', $kpi)['cells']);
}

// Ranks, quartiles, percentiles and gains by PostgreSQL's own window and ordered-set functions over the readings.
it('ranks and weighs units as the database does by hand', function (string $kpi, string $span, string $from, string $how, int $turn) {
    $page = $this->as('analyst')->getJson("/api/units/NET/comparison?period=2026-08&span={$span}")->assertOk()->json();
    $rows = DB::select(
        "WITH figures AS (
             SELECT units.code AS unit, {$how}(actual) AS figure, count(*) AS months FROM readings JOIN kpi_unit ON kpi_unit.id = kpi_unit_id JOIN kpis ON kpis.id = kpi_id JOIN units ON units.id = unit_id
             WHERE kpis.code = ? AND units.kind = 'zone' AND period BETWEEN ? AND '2026-08-01' AND actual IS NOT NULL GROUP BY units.code
         ), middle AS (SELECT percentile_cont(ARRAY[0.25, 0.5, 0.75]) WITHIN GROUP (ORDER BY figure) AS at, count(*) AS n FROM figures)
         SELECT unit, figure, rank() OVER (ORDER BY figure * ?) AS rank, 100 * percent_rank() OVER (ORDER BY figure) AS percentile, at[1] AS lower, at[2] AS median, at[3] AS upper,
             sum(greatest((figure - at[2]) * ?, 0)) OVER () AS short, sum(greatest((figure - at[2]) * ?, 0) / months) OVER () AS a_month, n FROM figures, middle",
        [$kpi, $from, $turn, $turn, $turn],
    );
    $found = collect($page['kpis'])->firstWhere('code', $kpi);
    $cells = cellsOf($page, $kpi);
    expect($rows)->not->toBe([])->and($found['figures'])->toBe(count($rows));
    foreach ($rows as $row) {
        expect($cells[$row->unit]['rank'])->toBe($row->rank)->and($cells[$row->unit]['percentile'])->toEqualWithDelta($row->percentile, 1e-9)
            ->and((float) $cells[$row->unit]['actual']['exact'])->toEqualWithDelta((float) $row->figure, 1e-9);
    }
    foreach (['lower', 'median', 'upper'] as $level) {
        expect((float) $found[$level]['exact'])->toEqualWithDelta((float) $rows[0]->{$level}, 1e-9);
    }
    // Seven months are left of the year.
    $change = $how === 'sum' ? $rows[0]->short : $rows[0]->short / $rows[0]->n;
    expect((float) $found['toMedian']['change']['exact'])->toEqualWithDelta(-$turn * $change, 1e-9)
        ->and((float) $found['toMedian']['toYearEnd']['exact'])->toEqualWithDelta(-$turn * ($how === 'sum' ? 7 * $rows[0]->a_month : $change * 7 / 12), 1e-9);
})->with([
    'a total of a month' => ['Z-BURSTS', 'month', '2026-08-01', 'sum', 1],
    'a total of the year to date' => ['Z-BURSTS', 'yearToDate', '2026-04-01', 'sum', 1],
    'a share, higher is better' => ['Z-REPAIR', 'month', '2026-08-01', 'avg', -1],
    'a mean of twelve months, one of them missing' => ['Z-NIGHT', 'rolling12', '2025-09-01', 'avg', 1],
]);

it('says what stands out, on what, and what goes together', function () {
    $page = comparison($this, 'NET');
    $leak = collect($page['kpis'])->firstWhere('code', 'Z-LEAK');

    expect($page)->kind->toBe('zone')->kinds->toBe([['kind' => 'zone', 'units' => 12]])->and($page['units'])->toHaveCount(12)->and(array_column($page['kpis'], 'code'))->toHaveCount(5)->toContain('Z-LEAK', 'Z-COLOUR')
        ->and($page['recurring'])->toMatchArray(['code' => 'Z-FENWICK', 'of' => 5])->and($page['recurring']['worst'])->toBeGreaterThan(1)
        ->and(cellsOf($page, 'Z-LEAK')['Z-FENWICK'])->toMatchArray(['rank' => 12, 'tenth' => 'worst'])->and($leak)->toMatchArray(['polarity' => 'lower', 'total' => false, 'aiming' => 12])
        ->and($page['units'][$leak['last'][0]]['code'])->toBe('Z-FENWICK')->and($page['pairs'])->toHaveCount(10)
        ->and(cellsOf($page, 'Z-COLOUR')['Z-SANDRY'])->toMatchArray(['actual' => null, 'instead' => 'no reading', 'rank' => null]);

    // The KPI page says the same of one of them.
    $standing = $this->as('analyst')->getJson('/api/units/Z-PENNOCK/kpis/Z-LEAK?period=2026-08&span=month')->json('standing');
    expect($standing)->toMatchArray(['rank' => cellsOf($page, 'Z-LEAK')['Z-PENNOCK']['rank'], 'of' => $leak['figures'], 'meeting' => $leak['meeting'], 'aiming' => $leak['aiming']])
        ->and((float) $leak['median']['exact'])->toEqual($standing['median']);
});

it('compares the units and KPIs that are asked for, and no more than eight', function () {
    expect(comparison($this, 'OST'))->kind->toBe('meter model')->kinds->toHaveCount(4)
        ->and(comparison($this, 'OST', '&kind=works'))->kind->toBe('works')->and(array_column(comparison($this, 'OST', '&kind=works')['units'], 'code'))->toHaveCount(8)
        ->and(comparison($this, 'OST', '&kind=nothing'))->kind->toBe('meter model')
        ->and(array_column(comparison($this, 'NET', '&kpis=Z-NIGHT,Z-LEAK,NONE')['kpis'], 'code'))->toBe(['Z-LEAK', 'Z-NIGHT'])
        ->and(array_column(comparison($this, 'NET', '&kpis=NONE')['kpis'], 'code'))->toHaveCount(5)
        ->and(comparison($this, 'Z-PENNOCK'))->toMatchArray(['kind' => '', 'units' => [], 'kpis' => [], 'pairs' => [], 'recurring' => null]);

    // Counted from records in every zone, and not among the first five in the register.
    $offered = array_column(comparison($this, 'NET')['offered'], 'code');
    $other = array_values(array_diff($offered, array_column(comparison($this, 'NET')['kpis'], 'code')))[0] ?? null;
    if ($other !== null) {
        expect(array_column(comparison($this, 'NET', "&kpi={$other}")['kpis'], 'code'))->toHaveCount(5)->toContain($other);
    }
    $department = DB::table('units')->where('code', 'NET')->value('id');
    foreach (range(1, 9) as $each) {
        $id = DB::table('kpis')->insertGetId(['code' => "MANY{$each}", 'name' => "Many {$each}", 'department_id' => $department, 'level' => 'operational', 'polarity' => 'lower', 'accumulation' => 'sum', 'measure' => '']);
        foreach (DB::table('units')->where('kind', 'zone')->pluck('id') as $unit) {
            DB::table('kpi_unit')->insert(['kpi_id' => $id, 'unit_id' => $unit, 'position' => 900]);
        }
    }
    expect(comparison($this, 'NET', '&kpis='.implode(',', array_map(fn (int $each): string => "MANY{$each}", range(1, 9))))['kpis'])->toHaveCount(8);
    $this->as('analyst')->getJson('/api/units/NET/comparison?period=2026-08&against=2026-13')->assertUnprocessable()->assertJsonPath('errors.0.pointer', '/against');
});

it('holds two months against each other, and ranks over thirteen', function () {
    $page = comparison($this, 'NET', '&against=2025-08');
    $bursts = collect($page['kpis'])->firstWhere('code', 'Z-BURSTS');
    $before = cellsOf($this->as('analyst')->getJson('/api/units/NET/comparison?period=2025-08&span=month')->json(), 'Z-BURSTS');
    $changes = [];
    foreach (cellsOf($page, 'Z-BURSTS') as $unit => $cell) {
        expect($cell['then'])->toBe($before[$unit]['actual'])->and((float) $cell['change']['difference']['exact'])->toEqualWithDelta((float) $cell['actual']['exact'] - (float) $before[$unit]['actual']['exact'], 1e-9);
        $changes[] = (float) $cell['change']['difference']['exact'];
    }
    $moved = array_map(fn (int $place): float => $changes[$place], $bursts['moved']);
    rsort($changes);
    expect($moved)->toBe($changes)->and(comparison($this, 'NET')['kpis'][0]['moved'])->toBeNull();

    $ranks = $this->as('analyst')->getJson('/api/units/NET/comparison/ranks?period=2026-08&span=month&kpi=Z-NIGHT')->assertOk()->json();
    expect($ranks['months'])->toHaveCount(13)->and($ranks['lines'])->toHaveCount(12);
    foreach (['2026-08' => 12, '2025-08' => 0] as $month => $at) {
        $cells = cellsOf($this->as('analyst')->getJson("/api/units/NET/comparison?period={$month}&span=month")->json(), 'Z-NIGHT');
        foreach ($ranks['lines'] as $line) {
            expect($line['ranks'][$at === 0 ? 0 : 12])->toBe($cells[$line['unit']]['rank']);
        }
    }
    $this->as('analyst')->getJson('/api/units/NET/comparison/ranks?period=2026-08&span=month&kpi=NONE')->assertOk()->assertJsonPath('lines', []);
});

it('exports what is compared, with names or with the letters that stand for them everywhere', function () {
    $file = fn (string $more): array => array_map(str_getcsv(...), explode("\n", trim($this->as('analyst')->get("/api/units/NET/comparison/file?period=2026-08&span=month&kpis=Z-LEAK,Z-NIGHT&format=csv{$more}")->assertOk()->streamedContent())));
    $plain = $file('');
    $masked = $file('&masked=1&against=2025-08');
    $letters = collect($this->getJson('/api/session')->json('units'))->pluck('letter', 'code');
    $matrix = $this->get('/api/units/NET/matrix/file?period=2026-08&span=month&crossing=units-kpis&masked=1&format=csv')->streamedContent();

    expect(array_map(fn (string $head): string => ltrim($head, "\u{FEFF}"), $plain[0]))->toBe(['unit', 'name', 'Leakage per connection, l/d', 'Leakage per connection, target', 'Leakage per connection, rank', 'Leakage per connection, percentile', 'Night flow in the zone, l/h', 'Night flow in the zone, target', 'Night flow in the zone, rank', 'Night flow in the zone, percentile'])
        ->and($plain)->toHaveCount(13)->and($plain[1])->toBe(['Z-FENWICK', 'Fenwick', '132', '111', '12', '100', $plain[1][6], $plain[1][7], $plain[1][8], $plain[1][9]])
        ->and($masked[0])->toHaveCount(14)->and($masked[1][0])->toBe('')->and($masked[1][1])->toBe("Zone {$letters['Z-FENWICK']}")
        ->and(implode(' ', array_merge(...$masked)))->not->toContain('Fenwick')->and($matrix)->toContain("Zone {$letters['Z-FENWICK']}")->not->toContain('Fenwick')
        ->and($letters['Z-FENWICK'])->toBe('A')->and($letters['Z-PENNOCK'])->toBe('L')->and($letters->only(['M-QUILL-15', 'M-TARN-150', 'M-OSIER-150'])->values()->all())->toBe(['A', 'T', 'CV']);
    foreach (['xlsx', 'ods'] as $format) {
        expect(strlen($this->get("/api/units/NET/comparison/file?period=2026-08&span=month&format={$format}")->assertOk()->streamedContent()))->toBeGreaterThan(2000);
    }
});

it('asks the database as often for a hundred units as for twelve, and leaves out what is closed', function () {
    $asked = function (string $unit): int {
        app()->forgetScopedInstances();
        DB::flushQueryLog();
        comparison($this, $unit);

        return count(DB::getQueryLog());
    };
    // A long transaction of another test would keep everything from being kept: it counts as begun before the last change.
    DB::table('assessment_marks')->delete();
    comparison($this, 'NET');
    comparison($this, 'MTR');
    DB::enableQueryLog();
    [$few, $many] = [$asked('NET'), $asked('MTR')];
    DB::disableQueryLog();
    expect($many)->toBeLessThanOrEqual($few)->and($few)->toBeLessThan(18);

    DB::table('kpi_unit')->where('unit_id', DB::table('units')->where('code', 'Z-PENNOCK')->value('id'))->update(['measured_to' => '2026-05-01']);
    app()->forgetScopedInstances();
    expect(array_column(comparison($this, 'NET')['units'], 'code'))->toHaveCount(11)->not->toContain('Z-PENNOCK');
});

it('shows a person the units that they see, and no others', function () {
    $this->as('head')->getJson('/api/units/MTR/comparison?period=2026-08&span=month')->assertNotFound();
    $this->as('head')->getJson('/api/units/OST/comparison/ranks?period=2026-08&span=month&kpi=M-FAIL')->assertNotFound();
    expect(comparison($this, 'NET', '', 'head')['units'])->toHaveCount(12);
});
