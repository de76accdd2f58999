<?php

declare(strict_types=1);

use Kybernet\Core\Calendar\Frequency;

use function Kybernet\Core\Tests\assessed;
use function Kybernet\Core\Tests\book;
use function Kybernet\Core\Tests\kpi;
use function Kybernet\Core\Tests\rows;

function target(string $period, string $target): array
{
    return ['kpi' => 'K', 'unit' => 'ORG', 'period' => $period, 'target' => $target];
}

it('takes a missing target from the figure set for the year', function (string $accumulation, array $targets, array $actuals, string $month, array $expected) {
    $book = book(['kpis' => [kpi('K', ['accumulation' => $accumulation])], 'readings' => rows('K', '2026-04', $actuals), 'targets' => $targets]);

    expect(assessed($book, '2026-06')['assessments']['K ORG']['spans'][$month])->toMatchArray($expected);
})->with([
    'an even share of a total' => ['sum', [target('FY2026', '100')], ['1', '1', '1'], 'yearToDate', ['target' => '25', 'targetFrom' => 'year', 'compared' => 3]],
    'a share that does not end' => ['sum', [target('FY2026', '100')], ['1', '1', '1'], 'month', ['target' => '8.333333333333', 'targetFrom' => 'year']],
    'a level as it is' => ['mean', [target('FY2026', '90')], ['1', '1', '1'], 'yearToDate', ['target' => '90', 'targetFrom' => 'year']],
    'its own goes first' => ['sum', [target('FY2026', '120'), target('2026-06', '4')], ['1', '1', '1'], 'month', ['target' => '4', 'targetFrom' => 'set']],
    'mixed' => ['sum', [target('FY2026', '120'), target('2026-06', '4')], ['1', '1', '1'], 'yearToDate', ['target' => '24', 'targetFrom' => 'year']],
    'the latest of them' => ['latest', [target('FY2026', '90'), target('2026-05', '80')], ['1', '1', '1'], 'yearToDate', ['target' => '90', 'targetFrom' => 'year']],
    'the highest' => ['maximum', [target('FY2026', '90'), target('2026-05', '95')], ['1', '1', '1'], 'yearToDate', ['target' => '95']],
    'the lowest' => ['minimum', [target('FY2026', '90'), target('2026-05', '80')], ['1', '1', '1'], 'yearToDate', ['target' => '80', 'actual' => '1']],
    'another year says nothing' => ['sum', [target('FY2025', '120')], ['1', '1', '1'], 'yearToDate', ['target' => null, 'targetFrom' => null, 'compared' => 0]],
    'the whole span where nothing is reported' => ['sum', [target('FY2026', '120')], [], 'quarter', ['target' => '30', 'targetFrom' => 'year', 'status' => 'no-data']],
]);

it('shares a year out among the periods that are measured in it', function () {
    $book = book([
        'kpis' => [kpi('K', ['accumulation' => 'sum', 'units' => [['unit' => 'ORG', 'from' => '2026-06']]])],
        'readings' => rows('K', '2026-06', ['11']),
        'targets' => [target('FY2026', '100')],
    ]);
    $assessed = assessed($book, '2026-06')['assessments']['K ORG'];

    expect($assessed['spans']['month']['target'])->toBe('10')
        ->and($assessed['projection'])->toMatchArray(['elapsedPercent' => '10', 'progressPercent' => '11', 'value' => '110', 'requiredPerPeriod' => '9.888888888889']);
});

it('knows a year of 53 weeks by its shares', function (string $year, string $week, string $month, string $share) {
    $book = book([
        'calendar' => ['yearStartMonth' => 1],
        'kpis' => [kpi('K', ['frequency' => 'week', 'accumulation' => 'sum'])],
        'readings' => rows('K', $week, ['1'], frequency: Frequency::Week),
        'targets' => [target($year, '5300')],
    ]);

    expect(assessed($book, $month)['assessments']['K ORG']['spans']['month']['target'])->toBe($share);
})->with([['FY2026', '2026-W02', '2026-01', '100'], ['FY2025', '2025-W02', '2025-01', '101.923076923077']]);

it('has one target for the year and for the period of a yearly KPI', function () {
    $book = book([
        'kpis' => [kpi('K', ['frequency' => 'year', 'accumulation' => 'sum'])],
        'readings' => rows('K', 'FY2025', ['40'], frequency: Frequency::Year),
        'targets' => [target('FY2025', '50')],
    ]);
    $assessed = assessed($book, '2026-03')['assessments']['K ORG'];

    expect($assessed['spans']['yearToDate'])->toMatchArray(['target' => '50', 'targetFrom' => 'set', 'variance' => '-10'])
        ->and($assessed['projection'])->toMatchArray(['yearTarget' => '50', 'elapsedPercent' => '100', 'requiredPerPeriod' => null]);
});

it('has a band only where both of its sides are there', function (array $years, string $span, array $expected) {
    $book = book([
        'kpis' => [kpi('K', ['polarity' => 'band', 'accumulation' => 'sum', 'rules' => []])],
        'readings' => rows('K', '2026-04', ['1', '1', '1']),
        'targets' => [['kpi' => 'K', 'unit' => 'ORG', 'period' => '2026-06', 'low' => '1', 'high' => '2'], ...$years],
    ]);

    expect(assessed($book, '2026-06')['assessments']['K ORG']['spans'][$span])->toMatchArray($expected);
})->with([
    'set' => [[], 'month', ['low' => '1', 'high' => '2', 'target' => null, 'targetFrom' => 'set', 'compared' => 1]],
    'of one period in three' => [[], 'yearToDate', ['low' => '1', 'high' => '2', 'targetFrom' => 'set', 'compared' => 1, 'variance' => '0', 'actual' => '3']],
    'mixed with shares of the year' => [[['kpi' => 'K', 'unit' => 'ORG', 'period' => 'FY2026', 'low' => '12', 'high' => '36']], 'yearToDate', ['low' => '3', 'high' => '8', 'targetFrom' => 'year', 'compared' => 3]],
]);
