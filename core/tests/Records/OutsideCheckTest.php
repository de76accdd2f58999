<?php

declare(strict_types=1);

use function Kybernet\Core\Tests\assessed;
use function Kybernet\Core\Tests\book;
use function Kybernet\Core\Tests\kpi;

/*
 * Source: wildlife strikes reported to the Federal Aviation Administration of the United States, from the npm package
 * vega-datasets. What each month and each year to date gives was computed by PostgreSQL's aggregates, percentile_cont
 * among them: Fixtures/birdstrikes.sql says how, bin/outside-check runs it again, and bin/test compares.
 */

/** @return array{list<array<string, string>>, list<array<string, string>>} the records, and what they give */
function strikes(): array
{
    return array_map(function (string $table): array {
        $lines = array_map(fn (string $line): array => str_getcsv($line, escape: ''), explode("\n", trim($table)));
        $head = array_map(strval(...), array_shift($lines));

        return array_map(fn (array $line): array => array_combine($head, array_map(strval(...), $line)), $lines);
    }, explode("\n\n", (string) file_get_contents(__DIR__.'/../Fixtures/birdstrikes.csv'), 2));
}

it('counts what PostgreSQL counts, by the month and over the year', function () {
    [$records, $expected] = strikes();
    $takes = [
        'strikes' => ['take' => 'count'], 'kinds' => ['take' => 'distinct', 'of' => 'species'], 'cost' => ['take' => 'sum', 'of' => 'cost'],
        'mean' => ['take' => 'mean', 'of' => 'speed'], 'lowest' => ['take' => 'minimum', 'of' => 'speed'], 'highest' => ['take' => 'maximum', 'of' => 'speed'],
        'median' => ['take' => 'median', 'of' => 'speed'], 'nine_in_ten' => ['take' => 'percentile', 'percentile' => '90', 'of' => 'speed'],
        'damaged' => ['take' => 'share', 'met' => [['of' => 'damage', 'isNot' => 'None']]],
    ];
    $book = book([
        'recordSets' => [[
            'code' => 'STRIKES', 'name' => 'Strikes', 'key' => 'number', 'covers' => ['from' => '2000-04-01', 'to' => '2002-03-31'],
            'fields' => array_map(fn (string $name): array => ['name' => $name, 'type' => match ($name) {
                'day' => 'date', 'cost', 'speed' => 'number', default => 'text'
            }], array_keys($records[0])),
            'rows' => array_map(array_values(...), $records),
        ]],
        'kpis' => array_map(fn (string $code, array $take): array => array_diff_key(kpi($code, ['kind' => 'records', 'counted' => ['records' => 'STRIKES', 'datedBy' => 'day', ...$take]]), ['accumulation' => '']), array_keys($takes), $takes),
    ]);
    $given = [];
    foreach (array_unique(array_column($expected, 'month')) as $month) {
        $assessments = assessed($book, $month)['assessments'];
        foreach (['month', 'yearToDate'] as $span) {
            $given[] = ['month' => $month, 'span' => $span, ...array_map(fn (string $code): string => (string) $assessments["{$code} ORG"]['spans'][$span]['actual'], array_combine(array_keys($takes), array_keys($takes)))];
        }
    }
    expect(count($records))->toBeGreaterThan(250)->and($given)->toBe($expected);
});

it('ages by whole days as ISO 8601 counts them', function (string $from, string $to) {
    // PHP's own calendar, which is not what the core counts by.
    $days = (string) (new DateTimeImmutable($from))->diff(new DateTimeImmutable($to))->format('%r%a');
    $book = book([
        'recordSets' => [['code' => 'BILLS', 'name' => 'Bills', 'key' => 'id', 'fields' => [['name' => 'id', 'type' => 'text'], ['name' => 'due', 'type' => 'date'], ['name' => 'paid', 'type' => 'date']], 'rows' => [['1', $from, $to]]]],
        'kpis' => [array_diff_key(kpi('AGE', ['kind' => 'records', 'counted' => ['records' => 'BILLS', 'take' => 'mean', 'of' => 'days(due, paid)', 'datedBy' => 'paid']]), ['accumulation' => ''])],
    ]);
    expect(assessed($book, substr($to, 0, 7))['assessments']['AGE ORG']['spans']['month']['actual'])->toBe($days);
})->with([['2024-02-28', '2024-03-01'], ['2023-02-28', '2023-03-01'], ['1999-12-31', '2000-03-01'], ['2026-10-24', '2026-10-26'], ['2026-12-31', '2027-01-01'], ['2027-01-05', '2026-12-31'], ['1900-02-28', '1900-03-01']]);
