<?php

declare(strict_types=1);

use Illuminate\Support\Facades\DB;

/** @return array<string, mixed> one row of a scorecard */
function row(mixed $test, string $kpi, string $unit, string $period, string $span): array
{
    return collect($test->as('executive')->getJson("/api/units/{$unit}/scorecard?period={$period}&span={$span}")->assertOk()->json('groups.*.rows.*'))
        ->firstWhere('code', $kpi);
}

it('gives the figures that the database adds up itself', function (string $span, string $first, string $kpi, string $gather) {
    $id = self::measured($kpi, 'NET')->id;
    $expected = DB::selectOne("
        SELECT trim_scale(round({$gather}(r.actual), 12)) AS actual, trim_scale(round({$gather}(t.target), 12)) AS target,
               trim_scale(round({$gather}(p.actual), 12)) AS prior, trim_scale(round({$gather}(r.actual) - {$gather}(t.target), 12)) AS variance
        FROM readings r JOIN targets t USING (kpi_unit_id, period)
        JOIN readings p ON p.kpi_unit_id = r.kpi_unit_id AND p.period = r.period - INTERVAL '1 year'
        WHERE r.kpi_unit_id = ? AND r.period BETWEEN ? AND '2026-08-01'", [$id, $first]);
    $row = row($this, $kpi, 'NET', '2026-08', $span);

    expect($row['actual']['exact'])->toBe($expected->actual)
        ->and($row['target']['exact'])->toBe($expected->target)
        ->and($row['prior']['exact'])->toBe($expected->prior)
        ->and($row['variance']['difference']['exact'])->toBe($expected->variance);
})->with([
    ['month', '2026-08-01'], ['quarter', '2026-07-01'], ['yearToDate', '2026-04-01'], ['rolling12', '2025-09-01'],
])->with([['BURSTS', 'sum'], ['LEAK', 'avg'], ['RENEWED', 'sum'], ['REPAIR5', 'avg']]);

it('tells coverage, gaps and what was aimed at', function () {
    $late = row($this, 'FLOODING', 'WST', '2026-08', 'month');
    expect($late['status'])->toBe('no-data')->and($late['actual'])->toBeNull()->and($late['target'])->not->toBeNull();

    $gap = row($this, 'VALVES', 'NET', '2026-08', 'yearToDate');
    expect($gap['reported'])->toBe(4)->and($gap['expected'])->toBe(5)->and($gap['wake'])->toHaveCount(13)
        ->and($gap['wake'][12]['actual'])->toBeNull()->and($gap['monthStatus'])->toBe('no-data');

    $this->getJson('/api/units/WST/scorecard?period=2026-08&span=month')->assertJsonPath('status', 'no-data')->assertJsonPath('missing', 5);
});

it('has no prior year for a KPI that started this year, and no limits on what is tracked', function () {
    expect(row($this, 'PULSE', 'PPL', '2026-08', 'yearToDate'))->prior->toBeNull()->change->toBeNull()->status->not->toBe('no-data')
        ->and(row($this, 'STOCK', 'OST', '2026-08', 'month'))->status->toBe('not-judged')->zones->toBeNull()->prior->not->toBeNull();
});

it('groups an organisation by department and a department by theme, with the units inside', function () {
    $whole = $this->as('executive')->getJson('/api/units/OST/scorecard?period=2026-08&span=month')->json();
    expect(array_column($whole['groups'], 'name'))->toBe(['Ostermere Water', 'Treatment', 'Network', 'Customer Service', 'Wastewater', 'Metering', 'Capital Delivery', 'People & Safety', 'Finance'])
        ->and(array_column($whole['units'], 'code'))->toBe(['TRT', 'NET', 'CUS', 'WST', 'MTR', 'CAP', 'PPL', 'FIN'])
        ->and(array_sum(array_map(fn (array $group): int => count($group['rows']), $whole['groups'])))->toBe(86);

    // Each department names the one of its own rows that lies furthest off course.
    foreach ($whole['units'] as $index => $line) {
        $rows = collect($whole['groups'][$index + 1]['rows']);
        $worst = $rows->firstWhere('id', $line['worst']);
        expect($worst['course']['now'])->toBe($rows->pluck('course.now')->filter(fn (mixed $now): bool => $now !== null)->max())->and($worst['unit'])->toBe($line['code']);
    }

    $network = $this->getJson('/api/units/NET/scorecard?period=2026-08&span=month')->json();
    expect(array_column($network['groups'], 'name'))->toBe(['Leakage and mains', 'Supply', 'Water quality', 'People', 'Money'])
        ->and($network['units'])->toHaveCount(12)
        ->and($network['units'][0])->toMatchArray(['code' => 'Z-FENWICK', 'status' => 'red']);
});

it('opens a row with the months of its year, its notes and the judging sentence', function () {
    $id = self::measured('LEAK', 'NET')->id;
    $detail = $this->as('executive')->getJson("/api/measurements/{$id}?period=2026-08&span=yearToDate")->assertOk()->json();

    expect($detail['months'])->toHaveCount(12)
        ->and($detail['months'][5]['actual'])->toBeNull()
        ->and($detail['verdict']['reason'])->toStartWith('Off course: ')->toContain('drifting to 5 % over')
        ->and(array_column($detail['notes'], 'period'))->toBe(['2026-08', '2026-07', '2026-06', '2026-04', '2025-08']);
});

it('says what is wrong with an address', function (string $path, int $status) {
    $this->as('executive')->getJson($path)->assertStatus($status)->assertHeader('Content-Type', 'application/problem+json');
})->with([
    ['/api/units/NOWHERE/scorecard?period=2026-08', 404],
    ['/api/units/NET/scorecard?period=2026-13', 422],
    ['/api/units/NET/scorecard', 422],
    ['/api/units/NET/scorecard?period=2026-08&span=decade', 422],
    ['/api/measurements/0?period=2026-08', 404],
    ['/api/nothing', 404],
]);

it('stays whole in a month with nothing at all', function () {
    $page = $this->as('executive')->getJson('/api/units/OST/scorecard?period=2031-01&span=rolling12')->assertOk()->json();

    expect($page['status'])->toBe('no-data')->and($page['counts']['judged'])->toBe(0);
});

it('makes the same demonstration on each start', function () {
    $plan = collect(Database\Ostermere\Catalogue::plans())->firstWhere('code', 'LEAK');
    $again = new Database\Ostermere\Figures($plan, 'NET');

    expect((new Database\Ostermere\Figures($plan, 'NET'))->actuals())->toBe($again->actuals())
        ->and(count(Database\Ostermere\Catalogue::plans()))->toBeGreaterThanOrEqual(40)
        ->and($again->actuals()['2026-08'])->toBe((string) (float) DB::table('readings')->where('kpi_unit_id', self::measured('LEAK', 'NET')->id)->where('period', '2026-08-01')->value('actual'));
});
