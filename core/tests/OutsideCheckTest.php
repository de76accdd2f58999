<?php

declare(strict_types=1);

use Kybernet\Core\Assessment;
use Kybernet\Core\Calendar\Span;
use Kybernet\Core\Measure\Accumulation;
use Kybernet\Core\Measure\Exact;
use Kybernet\Core\Status\Polarity;

use function Kybernet\Core\Tests\assessed;
use function Kybernet\Core\Tests\book;
use function Kybernet\Core\Tests\kpi;
use function Kybernet\Core\Tests\measured;
use function Kybernet\Core\Tests\month;
use function Kybernet\Core\Tests\rows;
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
function assessedMonths(string $series, Accumulation $rule, Span $span, bool $projected = false): array
{
    $rows = employment();
    $months = array_column($rows, 'month');
    $priors = array_combine(array_map(fn (string $month): string => month($month)->yearEarlier()->key(), $months), array_column($rows, "{$series}_prior"));
    $kpi = measured(Polarity::Higher, $rule, [], array_combine($months, array_column($rows, $series)) + $priors, array_combine($months, array_column($rows, "{$series}_target")));

    return array_map(
        fn (array $row): array => [$row, $projected ? scorecard()->projection($kpi, month($row['month'])) : scorecard()->assess($kpi, month($row['month']), $span)],
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

it('agrees with window functions on the seasonal projection', function (string $series, Accumulation $rule, string $column) {
    $checked = 0;
    foreach (assessedMonths($series, $rule, Span::Month, true) as [$row, $projection]) {
        // The file begins in a January, so its first financial year, and the one after it, have no complete one before.
        if ($row[$column] !== '' && $row['month'] >= '2009-04') {
            expect($projection?->method->value)->toBe('seasonal')->and((string) $projection?->value?->rounded(6)->stripTrailingZeros())->toBe($row[$column], $row['month']);
            $checked++;
        }
    }
    expect($checked)->toBe(72);
})->with([['change', Accumulation::Sum, 'change_seasonal'], ['level', Accumulation::Mean, 'level_seasonal']]);

/*
 * The infrastructure leakage index of the IWA and AWWA water balance: ILI = CARL ÷ UARL, with
 * UARL [l/d] = (18 × Lm + 0.8 × Nc + 25 × Lp) × P, Lm mains in km, Nc connections, Lp private pipe in km, P pressure in m.
 * Source: Lambert, Brown, Takizawa and Weimer (1999), "A review of performance indicators for real losses from water
 * supply systems". (18 × 1,000 + 0.8 × 50,000 + 25 × 400) × 50 = 3,400,000; 10,200,000 ÷ 3,400,000 = 3.
 */
it('works out the infrastructure leakage index', function () {
    $operands = ['CARL' => '10200000', 'MAINS' => '1000', 'CONN' => '50000', 'PRIVATE' => '400', 'PRESSURE' => '50'];
    $book = book([
        'kpis' => [...array_map(fn (string $code): array => kpi($code, ['accumulation' => 'mean', 'rules' => []]), array_keys($operands)), kpi('ILI', [
            'kind' => 'formula', 'polarity' => 'lower', 'decimals' => 1, 'accumulation' => 'recompute',
            'formula' => 'CARL / ((18 * MAINS + 0.8 * CONN + 25 * PRIVATE) * PRESSURE)',
            'rules' => [['from' => '2020-01', 'reference' => 'none', 'measure' => 'level', 'green' => '3', 'amber' => '4']],
        ])],
        'readings' => array_merge(...array_map(fn (string $code, string $figure): array => rows($code, '2026-08', [$figure]), array_keys($operands), $operands)),
    ]);

    expect(assessed($book)['assessments']['ILI ORG']['spans']['yearToDate'])->toMatchArray(['actual' => '3', 'status' => 'green']);
});

/*
 * ISO 22400-2: the overall equipment effectiveness index is availability (APT ÷ PBT) × effectiveness (PRI × PQ ÷ APT) ×
 * quality ratio (GQ ÷ PQ), and so PRI × GQ ÷ PBT. Two months together are the ratio of their sums: with a runtime of
 * 0.5 min an item, 0.5 × (700 + 300) ÷ (480 + 320) = 62.5 %, and not the mean of 72.9 % and 46.9 %.
 */
it('recomputes a ratio of ISO 22400-2 over months', function (string $formula) {
    $months = ['PBT' => ['480', '320'], 'APT' => ['400', '200'], 'PQ' => ['720', '330'], 'GQ' => ['700', '300']];
    $book = book([
        'kpis' => [...array_map(fn (string $code): array => kpi($code, ['accumulation' => 'sum', 'rules' => []]), array_keys($months)), kpi('OEE', ['kind' => 'formula', 'measure' => '%', 'accumulation' => 'recompute', 'formula' => $formula])],
        'readings' => array_merge(...array_map(fn (string $code, array $figures): array => rows($code, '2026-07', $figures), array_keys($months), $months)),
    ]);
    $actual = assessed($book)['assessments']['OEE ORG']['spans']['quarter']['actual'];

    expect((float) $actual)->toEqualWithDelta(62.5, 1e-8);
})->with(['APT / PBT * (0.5 * PQ / APT) * (GQ / PQ) * 100', '0.5 * GQ / PBT * 100']);
