<?php

declare(strict_types=1);

use Kybernet\Core\Assessment;
use Kybernet\Core\Calendar\Span;
use Kybernet\Core\Measure\Accumulation;
use Kybernet\Core\Measure\Exact;
use Kybernet\Core\Status\Polarity;

use function Kybernet\Core\Tests\measured;
use function Kybernet\Core\Tests\month;
use function Kybernet\Core\Tests\scorecard;

/*
 * Source: monthly employment in the United States, Bureau of Labor Statistics, from the npm package vega-datasets.
 * Year to date (April year), variance, prior year and rolling 12 were computed by PostgreSQL's window functions:
 * Fixtures/us-employment.sql says how, bin/outside-check runs it again, and bin/test compares.
 */
function employment(): array
{
    $lines = array_map(fn (string $line): array => str_getcsv($line, escape: ''), file(__DIR__.'/Fixtures/us-employment.csv', FILE_IGNORE_NEW_LINES) ?: []);
    $head = array_shift($lines);

    return array_map(fn (array $line): array => array_combine($head, $line), $lines);
}

/** Every month that is at least a year after the first, so that twelve months stand behind it. */
function assessedMonths(string $series, Accumulation $rule, Span $span): array
{
    $rows = employment();
    $months = array_column($rows, 'month');
    $priors = array_combine(array_map(fn (string $month): string => month($month)->yearEarlier()->key(), $months), array_column($rows, "{$series}_prior"));
    $kpi = measured(Polarity::Higher, $rule, [], array_combine($months, array_column($rows, $series)) + $priors, array_combine($months, array_column($rows, "{$series}_target")));

    return array_map(
        fn (array $row): array => [$row, scorecard()->assess($kpi, month($row['month']), $span)],
        array_slice($rows, 12),
    );
}

it('agrees with window functions on a flow: year to date, target, prior year', function () {
    $assessed = assessedMonths('change', Accumulation::Sum, Span::YearToDate);
    expect($assessed)->toHaveCount(84);
    foreach ($assessed as [$row, $assessment]) {
        /** @var Assessment $assessment */
        expect([
            (string) $assessment->figures->actual, (string) $assessment->figures->goal?->target, (string) $assessment->prior->figure,
            (string) $assessment->variance?->difference, (string) $assessment->change?->percent,
        ])->toBe([$row['change_ytd'], $row['change_target_ytd'], $row['change_prior_ytd'], $row['change_variance'], $row['change_prior_percent']], $row['month']);
    }
});

it('agrees with window functions on a level: means that do not end', function () {
    foreach (assessedMonths('level', Accumulation::Mean, Span::YearToDate) as [$row, $assessment]) {
        expect([(string) $assessment->figures->actual, (string) $assessment->variance?->difference, (string) $assessment->prior->figure])
            ->toBe([$row['level_ytd'], $row['level_variance'], $row['level_prior_ytd']], $row['month']);
    }
});

it('agrees with window functions on rolling 12', function () {
    foreach (assessedMonths('change', Accumulation::Sum, Span::Rolling12) as [$row, $assessment]) {
        expect($assessment->figures->actual?->compareTo(Exact::of($row['change_rolling12'])))->toBe(0);
    }
});
