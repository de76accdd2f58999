<?php

declare(strict_types=1);

use function Kybernet\Core\Tests\assessed;
use function Kybernet\Core\Tests\book;
use function Kybernet\Core\Tests\kpi;
use function Kybernet\Core\Tests\rows;

/**
 * A KPI measured in two units, A and B, and gathered in ORG above them: section 10 of the rules.
 *
 * @param  array<string, mixed>  $kpi
 * @param  list<array<string, mixed>>  $readings
 * @param  list<array<string, mixed>>  $targets
 * @param  array<string, mixed>  $b  what else is said of B
 * @return array<string, mixed> the assessment in ORG
 */
function gathered(array $kpi, array $readings, array $targets = [], array $b = [], string $month = '2026-08', array $more = []): array
{
    return assessed(book([
        'units' => [['code' => 'ORG', 'name' => 'O'], ['code' => 'A', 'name' => 'A', 'parent' => 'ORG'], ['code' => 'B', 'name' => 'B', 'parent' => 'ORG']],
        'kpis' => [kpi('K', ['gather' => ['method' => 'sum'], 'accumulation' => 'sum', 'units' => [['unit' => 'ORG', 'gathered' => true], ['unit' => 'A'], ['unit' => 'B', ...$b]], ...$kpi]), ...$more],
        'readings' => $readings,
        'targets' => $targets,
    ]), $month)['assessments']['K ORG'];
}

it('takes targets from the units that have both, and says where they come from', function () {
    $figures = [...rows('K', '2026-08', ['10'], unit: 'A'), ...rows('K', '2026-08', ['30'], unit: 'B')];
    $of = fn (array $targets): array => gathered([], $figures, $targets)['spans']['month'];

    expect($of([...rows('K', '2026-08', ['12'], 'target', 'A'), ...rows('K', '2026-08', ['20'], 'target', 'B')]))->toMatchArray(['actual' => '40', 'target' => '32', 'targetFrom' => 'set', 'compared' => 1, 'variance' => '8'])
        // B has none: what is compared is A alone, and the difference is not that of the figures shown.
        ->and($of(rows('K', '2026-08', ['12'], 'target', 'A')))->toMatchArray(['actual' => '40', 'target' => '12', 'compared' => 1, 'variance' => '-2'])
        ->and($of([['kpi' => 'K', 'unit' => 'A', 'period' => 'FY2026', 'target' => '120'], ...rows('K', '2026-08', ['20'], 'target', 'B')]))->toMatchArray(['target' => '30', 'targetFrom' => 'year'])
        ->and($of([])['compared'])->toBe(0);
});

it('aims in a year at what all units aim at, each in its own time', function (array $kpi, array $targets, array $b, ?string $expected) {
    $of = gathered($kpi, rows('K', '2026-08', ['10'], unit: 'A'), $targets, $b)['projection']['yearTarget'];

    expect($of)->toBe($expected);
})->with([
    'B has not reported' => [[], [...rows('K', '2026-04', array_fill(0, 12, '10'), 'target', 'A'), ...rows('K', '2026-04', array_fill(0, 12, '5'), 'target', 'B')], [], '180'],
    'B leaves in mid-year' => [[], [...rows('K', '2026-04', array_fill(0, 12, '10'), 'target', 'A'), ...rows('K', '2026-04', array_fill(0, 6, '5'), 'target', 'B')], ['to' => '2026-09'], '150'],
    'B has none' => [[], rows('K', '2026-04', array_fill(0, 12, '10'), 'target', 'A'), [], null],
    'levels: the plain mean' => [['gather' => ['method' => 'mean'], 'accumulation' => 'mean'], [['kpi' => 'K', 'unit' => 'A', 'period' => 'FY2026', 'target' => '90'], ['kpi' => 'K', 'unit' => 'B', 'period' => 'FY2026', 'target' => '80']], [], '85'],
]);

it('misses a unit in its own time alone', function () {
    $missing = fn (array $b, string $month): array => gathered([], rows('K', '2026-04', array_fill(0, 6, '10'), unit: 'A'), [], $b, $month)['spans']['yearToDate']['missingUnits'] ?? [];

    expect($missing([], '2026-08'))->toBe(['B'])->and($missing(['from' => '2026-09'], '2026-08'))->toBe([])->and($missing(['from' => '2026-09'], '2026-09'))->toBe(['B']);
});

it('compares with last year and the month before over the units that have both', function () {
    $span = gathered([], [
        ...rows('K', '2025-08', ['8'], unit: 'A'), ...rows('K', '2026-07', ['9'], unit: 'A'), ...rows('K', '2026-08', ['10'], unit: 'A'),
        // New this month.
        ...rows('K', '2026-08', ['30'], unit: 'B'),
    ])['spans']['month'];

    expect($span)->toMatchArray(['actual' => '40', 'prior' => '8', 'change' => '2', 'step' => '1']);
});

it('projects by the shape of last year over the units that have reported', function () {
    // Last year A had 10 and B 20 in every month: 360. April: both, 30 of 30. May: A alone, 10 of its 10.
    $lastYear = [...rows('K', '2025-04', array_fill(0, 12, '10'), unit: 'A'), ...rows('K', '2025-04', array_fill(0, 12, '20'), unit: 'B')];
    $thisYear = [...rows('K', '2026-04', ['11', '11'], unit: 'A'), ...rows('K', '2026-04', ['22'], unit: 'B')];
    $projection = gathered([], [...$lastYear, ...$thisYear], [], [], '2026-05')['projection'];
    // (33 + 11) × 360 ÷ (30 + 10)
    expect($projection)->toMatchArray(['method' => 'seasonal', 'value' => '396']);

    // Without B's whole year there is no shape to follow.
    $broken = [...rows('K', '2025-04', array_fill(0, 12, '10'), unit: 'A'), ...rows('K', '2025-04', array_fill(0, 11, '20'), unit: 'B')];
    expect(gathered([], [...$broken, ...$thisYear], [], [], '2026-05')['projection']['method'])->toBe('run-rate')
        // One that ended with last year is none of this year's units.
        ->and(gathered([], [...$broken, ...rows('K', '2026-04', ['11', '11'], unit: 'A')], [], ['to' => '2026-02'], '2026-05')['projection'])->toMatchArray(['method' => 'seasonal', 'value' => '132']);
});

it('gives no figure where weights are nothing, and leaves out a unit without one', function (array $weights, ?string $expected) {
    $more = [kpi('W', ['accumulation' => 'latest', 'polarity' => 'none', 'rules' => [], 'units' => [['unit' => 'A'], ['unit' => 'B']]])];
    $readings = [...rows('K', '2026-08', ['10'], unit: 'A'), ...rows('K', '2026-08', ['40'], unit: 'B'), ...rows('W', '2026-08', [$weights[0]], unit: 'A'), ...rows('W', '2026-08', [$weights[1]], unit: 'B')];
    expect(gathered(['gather' => ['method' => 'weighted', 'weight' => 'W'], 'accumulation' => 'mean'], $readings, more: $more)['spans']['month']['actual'])->toBe($expected);
})->with([
    'both' => [['1', '2'], '30'], 'one is missing' => [['1', null], '10'], 'all are 0' => [['0', '0'], null],
]);

it('holds a band against the band of the periods that are compared with last year', function () {
    $band = ['accumulation' => 'mean', 'polarity' => 'band', 'rules' => [['from' => '2020-01', 'reference' => 'target', 'measure' => 'absolute', 'green' => '0', 'amber' => '1']]];
    $limits = fn (string $month, string $low, string $high): array => ['kpi' => 'K', 'unit' => 'ORG', 'period' => $month, 'low' => $low, 'high' => $high];
    // Only July has a figure a year earlier: 12 then, 11 now, within 0 to 10 that is 2 and 1 away. August's band would turn it around.
    $span = assessed(book([
        'kpis' => [kpi('K', $band)],
        'readings' => [...rows('K', '2025-07', ['12']), ...rows('K', '2026-07', ['11', '50'])],
        'targets' => [$limits('2026-07', '0', '10'), $limits('2026-08', '100', '110')],
    ]))['assessments']['K ORG']['spans']['quarter'];

    expect($span)->toMatchArray(['comparedPrior' => 1, 'change' => '-1', 'priorEffect' => 'favourable']);
});

it('excuses what has no readings, not a ratio that has them', function () {
    // R = A ÷ B has readings in April and June; orzero(R) over the quarter is the ratio of those sums, 12 ÷ 6.
    $book = fn (array $b): array => book([
        'kpis' => [
            kpi('A', ['accumulation' => 'sum', 'polarity' => 'none', 'rules' => []]), kpi('B', ['accumulation' => 'sum', 'polarity' => 'none', 'rules' => []]), kpi('X', ['accumulation' => 'sum', 'polarity' => 'none', 'rules' => []]),
            kpi('R', ['kind' => 'formula', 'formula' => 'A / B', 'accumulation' => 'recompute', 'polarity' => 'none', 'rules' => []]),
            kpi('F', ['kind' => 'formula', 'formula' => 'X + orzero(R)', 'accumulation' => 'recompute', 'polarity' => 'none', 'rules' => []]),
        ],
        'readings' => [...rows('A', '2026-04', ['4', null, '8']), ...rows('B', '2026-04', $b), ...rows('X', '2026-04', ['1', '1', '1'])],
    ]);
    expect(assessed($book(['1', null, '5']), '2026-06')['assessments']['F ORG']['spans']['quarter']['actual'])->toBe('5')
        ->and(assessed($book(['1', null, '0']), '2026-06')['assessments']['F ORG']['spans']['month'])->toMatchArray(['actual' => null, 'reported' => 1]);
});

it('works each formula out once, however many others share it', function () {
    $kpis = [kpi('F0', ['accumulation' => 'sum', 'polarity' => 'none', 'rules' => []]), kpi('F1', ['accumulation' => 'sum', 'polarity' => 'none', 'rules' => []])];
    foreach (range(2, 60) as $n) {
        $kpis[] = kpi("F{$n}", ['kind' => 'formula', 'formula' => 'F'.($n - 1).' + F'.($n - 2), 'accumulation' => 'recompute', 'polarity' => 'none', 'rules' => [], 'gather' => ['method' => 'recompute'], 'units' => [['unit' => 'ORG', 'gathered' => true], ['unit' => 'A']]]);
    }
    $kpis[0]['units'] = $kpis[1]['units'] = [['unit' => 'A']];
    $result = assessed(book([
        'units' => [['code' => 'ORG', 'name' => 'O'], ['code' => 'A', 'name' => 'A', 'parent' => 'ORG']], 'kpis' => $kpis,
        'readings' => [...rows('F0', '2026-07', ['0', '0'], unit: 'A'), ...rows('F1', '2026-07', ['1', '1'], unit: 'A')],
    ]))['assessments'];
    // The 60th Fibonacci number (OEIS A000045), twice over two months; unshared, this would take 10¹² steps.
    expect($result['F60 A']['spans']['month']['actual'])->toBe('1548008755920')->and($result['F60 ORG']['spans']['quarter']['actual'])->toBe('3096017511840');
});
