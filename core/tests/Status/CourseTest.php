<?php

declare(strict_types=1);

use function Kybernet\Core\Tests\assessed;
use function Kybernet\Core\Tests\book;
use function Kybernet\Core\Tests\kpi;
use function Kybernet\Core\Tests\rows;

/*
 * Section 13 of the rules. Its places are worked out by hand here: (deviation − green) ÷ (amber − green).
 */

/**
 * @param  array<string, mixed>  $rule  without its first month
 * @param  array<string, mixed>  $more  of the KPI
 * @return array<string, float|null>|null
 */
function courseOf(string $actual, array $rule, string $polarity = 'lower', array $more = [], array $target = ['target' => '50'], array $earlier = [], string $span = 'month'): ?array
{
    $book = book([
        'kpis' => [kpi('K', ['polarity' => $polarity, 'accumulation' => 'mean', 'rules' => [['from' => '2020-01'] + $rule], ...$more])],
        'readings' => [...$earlier, ['kpi' => 'K', 'unit' => 'ORG', 'period' => '2026-08', 'actual' => $actual]],
        'targets' => $target === [] ? [] : [['kpi' => 'K', 'unit' => 'ORG', 'period' => '2026-08'] + $target],
    ]);

    return assessed($book)['assessments']['K ORG']['spans'][$span]['course'];
}

const PERCENT = ['reference' => 'target', 'measure' => 'percent', 'green' => '0', 'amber' => '5'];
const NO_AMBER = ['reference' => 'target', 'measure' => 'percent', 'green' => '5', 'amber' => '5'];
const LEVELS = ['reference' => 'none', 'measure' => 'level', 'low' => '10', 'high' => '20', 'marginLow' => '2', 'marginHigh' => '4'];

it('places the figure between the limits', function (string $actual, array $rule, string $polarity, float $place, array $target = ['target' => '50']) {
    expect(courseOf($actual, $rule, $polarity, target: $target)['now'] ?? null)->toEqualWithDelta($place, 1e-12);
})->with([
    'on target' => ['50', PERCENT, 'lower', 0.0],
    '2.5 % over, half-way' => ['51.25', PERCENT, 'lower', 0.5],
    'at the limit of amber' => ['52.5', PERCENT, 'lower', 1.0],
    '10 % over' => ['55', PERCENT, 'lower', 2.0],
    '10 % under' => ['45', PERCENT, 'lower', -2.0],
    'higher is better' => ['45', PERCENT, 'higher', 2.0],
    'a target below 0' => ['-45', PERCENT, 'lower', 2.0, ['target' => '-50']],
    'in the measure' => ['53', ['measure' => 'absolute', 'green' => '1', 'amber' => '5'] + PERCENT, 'lower', 0.5],
    'a green that asks for more' => ['49', ['green' => '-2', 'amber' => '2'] + PERCENT, 'lower', 0.0],
    'a share reached, higher' => ['47.5', ['measure' => 'reached', 'green' => '100', 'amber' => '90'] + PERCENT, 'higher', 0.5],
    'a share reached, lower' => ['52.5', ['measure' => 'reached', 'green' => '100', 'amber' => '90'] + PERCENT, 'lower', 0.5],
    'by levels' => ['64', ['reference' => 'none', 'measure' => 'level', 'green' => '60', 'amber' => '70'], 'lower', 0.4],
    'by levels, higher' => ['64', ['reference' => 'none', 'measure' => 'level', 'green' => '70', 'amber' => '60'], 'higher', 0.6],
    // A target of 0: no percentage of it can be told.
    'nothing where nothing is aimed at' => ['0', PERCENT, 'lower', 0.0, ['target' => '0']],
    'one accident' => ['1', PERCENT, 'lower', 3.0, ['target' => '0']],
    'better than nothing' => ['-1', PERCENT, 'lower', -3.0, ['target' => '0']],
    // A band: inside, minus the distance to the nearer limit.
    'inside a band, 10 % of the lower limit from it' => ['44', PERCENT, 'band', -2.0, ['low' => '40', 'high' => '60']],
    'half-way, by the lower one' => ['50', PERCENT, 'band', -5.0, ['low' => '40', 'high' => '60']],
    'above a band' => ['61.5', PERCENT, 'band', 0.5, ['low' => '40', 'high' => '60']],
    'a band from 0, inside' => ['3', PERCENT, 'band', -3.0, ['low' => '0', 'high' => '60']],
    'a band from 0, on it' => ['0', PERCENT, 'band', -3.0, ['low' => '0', 'high' => '60']],
    'a band from 0, below' => ['-1', PERCENT, 'band', 3.0, ['low' => '0', 'high' => '60']],
    'in the measure, inside a band' => ['44', ['measure' => 'absolute', 'green' => '0', 'amber' => '8'] + PERCENT, 'band', -0.5, ['low' => '40', 'high' => '60']],
    'levels of a band, inside, nearer to the upper one' => ['18', LEVELS, 'band', -0.5, ['low' => '40', 'high' => '60']],
    'levels of a band, above' => ['21', LEVELS, 'band', 0.25, ['low' => '40', 'high' => '60']],
    'levels of a band, below' => ['9', LEVELS, 'band', 0.5, ['low' => '40', 'high' => '60']],
    // Nothing between green and red: the usual step, or else 5, or 5 % of what is compared with, or 1.
    'no amber, on course' => ['50', NO_AMBER, 'lower', -1.0],
    'no amber, at the limit' => ['52.5', NO_AMBER, 'lower', 0.0],
    'no amber, off course' => ['55', NO_AMBER, 'lower', 2.0],
    'no amber, by levels' => ['63', ['reference' => 'none', 'measure' => 'level', 'green' => '60', 'amber' => '60'], 'lower', 2.0],
    'no amber, at a level of 0' => ['2', ['reference' => 'none', 'measure' => 'level', 'green' => '0', 'amber' => '0'], 'lower', 3.0],
    'no amber, in the measure of a band' => ['42', ['measure' => 'absolute', 'green' => '0', 'amber' => '0'] + PERCENT, 'band', -1.0, ['low' => '40', 'high' => '60']],
]);

it('steps by how much the KPI usually moves where nothing lies between green and red', function () {
    // Moving by 2 from month to month: 4 % of 50.
    $before = rows('K', '2025-08', array_map(fn (int $at): string => $at % 2 === 0 ? '50' : '52', range(0, 11)));

    expect(courseOf('54', NO_AMBER, earlier: $before)['now'])->toEqualWithDelta(1 + (8 - 5) / 4, 1e-12)
        ->and(courseOf('51', NO_AMBER, earlier: $before)['now'])->toEqualWithDelta((2 - 5) / 4, 1e-12);
});

it('tells where it stood a month before, where last year was, and where the target lies', function () {
    $before = [
        ['kpi' => 'K', 'unit' => 'ORG', 'period' => '2025-08', 'actual' => '55'],
        ['kpi' => 'K', 'unit' => 'ORG', 'period' => '2026-07', 'actual' => '51.25'],
    ];
    $book = book([
        'kpis' => [kpi('K', ['polarity' => 'lower', 'accumulation' => 'mean', 'rules' => [['from' => '2020-01', 'green' => '-2', 'amber' => '2'] + PERCENT]])],
        'readings' => [...$before, ['kpi' => 'K', 'unit' => 'ORG', 'period' => '2026-08', 'actual' => '52']],
        'targets' => rows('K', '2026-07', ['50', '50'], 'target'),
    ]);
    $course = assessed($book)['assessments']['K ORG']['spans']['month']['course'];

    expect($course['now'])->toEqualWithDelta(1.5, 1e-12)->and($course['before'])->toEqualWithDelta(1.125, 1e-12)
        ->and($course['prior'])->toEqualWithDelta(3.0, 1e-12)
        // A green that asks for 2 % better than the target: the target itself is drifting.
        ->and($course['target'])->toEqualWithDelta(0.5, 1e-12);
});

it('has limits of a total grow with the periods that are compared', function () {
    $book = book([
        'kpis' => [kpi('K', ['polarity' => 'lower', 'accumulation' => 'sum', 'rules' => [['from' => '2020-01', 'reference' => 'target', 'measure' => 'absolute', 'green' => '0', 'amber' => '2']]])],
        'readings' => [...rows('K', '2026-04', ['11', '11', '11', '11', '11']), ...rows('K', '2025-04', ['10', '10'])],
        'targets' => rows('K', '2026-04', ['10', '10', '10', '10', '10'], 'target'),
    ]);
    $course = assessed($book)['assessments']['K ORG']['spans']['yearToDate']['course'];

    // 5 over with limits of 0 and 10; last year 20 against 20, over the two months that it has.
    expect($course['now'])->toEqualWithDelta(0.5, 1e-12)->and($course['prior'])->toEqualWithDelta(0.0, 1e-12);
});

it('places the year to date under a year target, whatever span is shown', function () {
    $book = book([
        'kpis' => [kpi('K', ['polarity' => 'higher', 'accumulation' => 'sum', 'rules' => [['from' => '2020-01', 'reference' => 'year-target', 'measure' => 'reached', 'green' => '100', 'amber' => '80', 'pace' => 'even']]])],
        'readings' => [...rows('K', '2026-04', ['10', '10', '10', '10', '5']), ...rows('K', '2025-04', ['10', '10', '10', '10', '10'])],
        'targets' => [['kpi' => 'K', 'unit' => 'ORG', 'period' => 'FY2026', 'target' => '120']],
    ]);
    $spans = assessed($book)['assessments']['K ORG']['spans'];

    // 45 of the 50 that an even share asks for by August: 90 %.
    expect($spans['yearToDate']['course']['now'])->toEqualWithDelta(0.5, 1e-12)
        ->and($spans['month']['course']['now'])->toEqualWithDelta(0.5, 1e-12)
        ->and($spans['month']['course']['prior'])->toEqualWithDelta(0.0, 1e-12)
        ->and($spans['month']['course']['target'])->toBeNull();
});

it('has no course where nothing is judged', function (array $rule, string $polarity, array $target, array $more = []) {
    expect(courseOf('50', $rule, $polarity, $more, $target))->toBeNull();
})->with([
    'no target' => [PERCENT, 'lower', []],
    'a share of 0' => [['measure' => 'reached', 'green' => '100', 'amber' => '90'] + PERCENT, 'higher', ['target' => '0']],
    'limits that begin later' => [PERCENT, 'lower', ['target' => '50'], ['rules' => [['from' => '2027-01'] + PERCENT]]],
    'only tracked' => [[], 'none', ['target' => '50'], ['rules' => []]],
]);
