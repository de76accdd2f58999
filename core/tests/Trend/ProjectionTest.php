<?php

declare(strict_types=1);

use Kybernet\Core\Calendar\Frequency;
use Kybernet\Core\Measure\Accumulation;
use Kybernet\Core\Measure\Exact;
use Kybernet\Core\Status\Polarity;
use Kybernet\Core\Trend\ProjectionPath;

use function Kybernet\Core\Tests\assessed;
use function Kybernet\Core\Tests\book;
use function Kybernet\Core\Tests\kpi;
use function Kybernet\Core\Tests\measured;
use function Kybernet\Core\Tests\month;
use function Kybernet\Core\Tests\monthly;
use function Kybernet\Core\Tests\rows;
use function Kybernet\Core\Tests\scorecard;

/** The projection at 2026-06 of a KPI with a financial year from April; targets start in 2026-04. */
function projected(array $kpi, array $lastYear, array $thisYear, array $targets = [], string $month = '2026-06'): ?array
{
    return assessed(book([
        'kpis' => [kpi('K', $kpi)],
        'readings' => [...rows('K', '2025-04', $lastYear), ...rows('K', '2026-04', $thisYear)],
        'targets' => $targets,
    ]), $month)['assessments']['K ORG']['projection'];
}

function yearTarget(string $target): array
{
    return [['kpi' => 'K', 'unit' => 'ORG', 'period' => 'FY2026', 'target' => $target]];
}

it('projects to the year end by the method that fits', function (array $kpi, array $lastYear, array $thisYear, array $expected) {
    expect(projected($kpi, $lastYear, $thisYear))->toMatchArray($expected);
})->with([
    'a total by last year’s shape' => [['accumulation' => 'sum'], ['10', '10', '10', ...array_fill(0, 9, '20')], ['11', '11', '11'], ['method' => 'seasonal', 'value' => '231']],
    'a mean by last year’s shape' => [['accumulation' => 'mean'], ['10', '10', '10', ...array_fill(0, 9, '20')], ['11', '11', '12.5'], ['method' => 'seasonal', 'value' => '19']],
    'a hole in last year' => [['accumulation' => 'sum'], ['10', null, '10', ...array_fill(0, 9, '20')], ['11', '11', '11'], ['method' => 'run-rate', 'value' => '132']],
    'the same months of last year were nothing' => [['accumulation' => 'sum'], ['0', '0', '0', ...array_fill(0, 9, '20')], ['11', '11', '11'], ['method' => 'run-rate', 'value' => '132']],
    'a total by what is reported' => [['accumulation' => 'sum'], [], ['10', null, '15'], ['method' => 'run-rate', 'value' => '150']],
    'a mean stays' => [['accumulation' => 'mean'], [], ['10', null, '15'], ['method' => 'run-rate', 'value' => '12.5']],
    'the latest without a trend' => [['accumulation' => 'latest'], [], ['10', '14', '13'], ['method' => 'last-value', 'value' => '13']],
    'the latest along its trend, exactly' => [['accumulation' => 'latest'], [null, null, null, null, null, null, null, null, null, '0.1', '0.2', '0.3'], ['0.4', '0.5', '0.6'], ['method' => 'trend-line', 'value' => '1.5']],
    'the highest so far' => [['accumulation' => 'maximum'], [], ['10', '14', '13'], ['method' => 'so-far', 'value' => '14']],
    'the lowest so far' => [['accumulation' => 'minimum'], [], ['10', '14', '13'], ['method' => 'so-far', 'value' => '10']],
    'a bound of a level' => [['accumulation' => 'mean', 'max' => '18'], ['10', '10', '10', ...array_fill(0, 9, '18')], ['17', '17', '17'], ['value' => '18']],
    'a bound of a total is for each period' => [['accumulation' => 'sum', 'max' => '20'], ['1', '1', '1', ...array_fill(0, 9, '20')], ['20', '20', '20'], ['value' => '240']],
]);

it('brings a weekly total of last year to as many weeks as this year has', function () {
    // The calendar year 2026 has 53 weeks, of which week 53 has no prior one: 52 weeks of 10 stand for 53.
    $weekly = assessed(book([
        'calendar' => ['yearStartMonth' => 1],
        'kpis' => [kpi('K', ['frequency' => 'week', 'accumulation' => 'sum'])],
        'readings' => [...rows('K', '2025-W01', array_fill(0, 52, '10'), frequency: Frequency::Week), ...rows('K', '2026-W01', array_fill(0, 26, '20'), frequency: Frequency::Week)],
    ]), '2026-06')['assessments']['K ORG']['projection'];

    expect($weekly)->toMatchArray(['method' => 'seasonal', 'value' => '1060']);
});

it('has nothing to project before a reading, or for one that nobody measures this year', function () {
    expect(projected([], ['10', '10'], []))->toBeNull()
        ->and(projected(['units' => [['unit' => 'ORG', 'to' => '2026-03']]], ['10', '10'], []))->toBeNull();
});

it('compares a year like for like where the KPI ends within it', function () {
    expect(projected(['accumulation' => 'sum', 'units' => [['unit' => 'ORG', 'to' => '2026-12']]], array_fill(0, 12, '10'), ['10', '10', '10'], yearTarget('90')))
        ->toMatchArray(['method' => 'seasonal', 'value' => '90', 'elapsedPercent' => '33.333333333333', 'requiredPerPeriod' => '10']);
});

it('says how far the year is and what the rest needs', function (string $accumulation, array $thisYear, string $month, array $expected) {
    expect(projected(['accumulation' => $accumulation], [], $thisYear, yearTarget('120'), $month))->toMatchArray($expected);
})->with([
    'a total' => ['sum', ['8', '8', '8'], '2026-06', ['yearTarget' => '120', 'progressPercent' => '20', 'elapsedPercent' => '25', 'requiredPerPeriod' => '10.666666666667']],
    'a mean' => ['mean', ['110', null, '120'], '2026-06', ['progressPercent' => null, 'requiredPerPeriod' => '121.111111111111']],
    'the latest needs no rate' => ['latest', ['110', '111', '120'], '2026-06', ['yearTarget' => '120', 'requiredPerPeriod' => null]],
    'nothing is left' => ['sum', array_fill(0, 12, '9'), '2027-03', ['progressPercent' => '90', 'elapsedPercent' => '100', 'requiredPerPeriod' => null, 'value' => '108']],
]);

it('judges the projected value by the limits of the whole year', function (array $rule, array $kpi, array $lastYear, array $targets, string $status) {
    expect(projected(['rules' => [['from' => '2026-06', ...$rule]], ...$kpi], $lastYear, ['10', '10', '10'], $targets)['status'] ?? null)->toBe($status);
})->with([
    'against the year target' => [['reference' => 'target', 'measure' => 'percent', 'green' => '0', 'amber' => '5'], ['accumulation' => 'sum'], [], yearTarget('125'), 'amber'],
    'an absolute limit for each period' => [['reference' => 'target', 'measure' => 'absolute', 'green' => '0', 'amber' => '1'], ['accumulation' => 'sum'], [], yearTarget('132'), 'amber'],
    'levels for each period' => [['reference' => 'none', 'measure' => 'level', 'green' => '11', 'amber' => '10'], ['accumulation' => 'sum'], [], [], 'amber'],
    'without a year target' => [['reference' => 'target', 'measure' => 'percent', 'green' => '0', 'amber' => '5'], ['accumulation' => 'sum'], [], [], 'not-judged'],
    'against the full prior year' => [['reference' => 'prior-year', 'measure' => 'percent', 'green' => '0', 'amber' => '5'], ['accumulation' => 'sum'], array_fill(0, 12, '10'), [], 'green'],
    'against a prior year with a hole' => [['reference' => 'prior-year', 'measure' => 'percent', 'green' => '0', 'amber' => '5'], ['accumulation' => 'sum'], ['10', '10', '10'], [], 'not-judged'],
    'against what was recent' => [['reference' => 'recent', 'periods' => 1, 'measure' => 'percent', 'green' => '0', 'amber' => '5'], ['accumulation' => 'sum'], [], [], 'not-judged'],
    'share of the year target' => [['reference' => 'year-target', 'measure' => 'reached', 'green' => '100', 'amber' => '90'], ['accumulation' => 'sum'], [], yearTarget('125'), 'amber'],
]);

it('judges the projection of a band against the year’s bands', function (string $accumulation, array $targets, string $status) {
    $rule = ['reference' => 'target', 'measure' => 'percent', 'green' => '0', 'amber' => '5'];

    expect(projected(['polarity' => 'band', 'accumulation' => $accumulation, 'rules' => [['from' => '2026-04', ...$rule]]], [], ['10', '10', '10'], $targets))->toMatchArray(['status' => $status, 'yearTarget' => null]);
})->with([
    'all from the year' => ['sum', [['kpi' => 'K', 'unit' => 'ORG', 'period' => 'FY2026', 'low' => '110', 'high' => '121']], 'green'],
    'a month missing' => ['mean', [['kpi' => 'K', 'unit' => 'ORG', 'period' => '2026-04', 'low' => '9', 'high' => '11']], 'not-judged'],
]);

it('projects a ratio by its operands', function () {
    $book = book([
        'kpis' => [
            kpi('A', ['accumulation' => 'sum', 'rules' => []]), kpi('B', ['accumulation' => 'latest', 'rules' => []]),
            kpi('K', ['kind' => 'formula', 'accumulation' => 'recompute', 'formula' => 'A / B']),
            kpi('C', ['kind' => 'formula', 'accumulation' => 'recompute', 'formula' => 'A + orzero(Z)']),
            kpi('Z', ['accumulation' => 'sum', 'rules' => []]),
        ],
        'readings' => [...rows('A', '2026-04', ['10', '20', '30']), ...rows('B', '2026-04', ['5', '4', null])],
    ]);
    $assessed = assessed($book, '2026-06')['assessments'];

    expect($assessed['K ORG']['projection'])->toMatchArray(['method' => 'operands', 'value' => '60'])
        ->and($assessed['C ORG']['projection'])->toMatchArray(['value' => '240']);
});

it('counts quarters and years as they end', function () {
    $book = book(['kpis' => [kpi('K', ['frequency' => 'quarter', 'accumulation' => 'sum'])], 'readings' => rows('K', 'FY2026-Q1', ['10', '20'], frequency: Frequency::Quarter)]);

    expect(assessed($book, '2026-08')['assessments']['K ORG']['projection'])->toMatchArray(['value' => '40', 'elapsedPercent' => '25'])
        ->and(assessed($book, '2026-09')['assessments']['K ORG']['projection'])->toMatchArray(['value' => '60', 'elapsedPercent' => '50']);
});

it('draws the way to the projected figure through the periods that are left', function (Accumulation $accumulation, array $lastYear, array $thisYear, array $path) {
    $measurement = measured(Polarity::Lower, $accumulation, [], [...monthly('2025-04', $lastYear), ...monthly('2026-04', $thisYear)]);
    $projection = scorecard()->projection($measurement, month('2026-06'));
    $drawn = ProjectionPath::of($projection, $measurement, scorecard()->timeline, month('2026-06'));

    expect(array_map(strval(...), $drawn))->toBe($path);
})->with([
    'a total by last year’s shape' => [Accumulation::Sum, ['10', '10', '10', ...array_fill(0, 9, '20')], ['11', '11', '11'], monthly('2026-07', array_fill(0, 9, '22'))],
    'a mean by last year’s shape' => [Accumulation::Mean, ['10', '10', '10', ...array_fill(0, 9, '20')], ['11', '11', '12.5'], monthly('2026-07', array_fill(0, 9, '21.5'))],
    'a total by what is reported' => [Accumulation::Sum, [], ['10', null, '15'], monthly('2026-07', array_fill(0, 9, '12.5'))],
    'the latest without a trend' => [Accumulation::Latest, [], ['10', '14', '13'], monthly('2026-07', array_fill(0, 9, '13'))],
    'the latest along its trend: its end alone' => [Accumulation::Latest, [null, null, null, null, null, null, null, null, null, '0.1', '0.2', '0.3'], ['0.4', '0.5', '0.6'], ['2027-03' => '1.5']],
    'the highest says nothing of single months' => [Accumulation::Maximum, [], ['10', '14', '13'], []],
]);

it('gathers its way and what is reported to the projected figure', function () {
    foreach (range(1, 40) as $seed) {
        mt_srand($seed);
        $figures = fn (int $count): array => array_map(fn (): string => (string) mt_rand(1, 999), range(1, $count));
        $accumulation = $seed % 2 === 0 ? Accumulation::Sum : Accumulation::Mean;
        $months = monthly('2025-04', [...$figures(12), ...$figures(5)]);
        $measurement = measured(Polarity::Lower, $accumulation, [], $months);
        $projection = scorecard()->projection($measurement, month('2026-08'));
        $path = ProjectionPath::of($projection, $measurement, scorecard()->timeline, month('2026-08'));
        $whole = array_map(fn (string|Exact $figure): float => is_string($figure) ? (float) $figure : $figure->toFloat(), [...array_slice($months, 12), ...$path]);

        expect(array_sum($whole) / ($accumulation === Accumulation::Sum ? 1 : 12))->toEqualWithDelta($projection->value->toFloat(), 1e-6);
    }
});
