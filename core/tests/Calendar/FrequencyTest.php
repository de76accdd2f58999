<?php

declare(strict_types=1);

use Kybernet\Core\Calendar\FinancialYear;
use Kybernet\Core\Calendar\Frequency;
use Kybernet\Core\Calendar\Period;
use Kybernet\Core\Calendar\Span;
use Kybernet\Core\Calendar\Tenure;
use Kybernet\Core\Calendar\Timeline;

use function Kybernet\Core\Tests\month;

function keys(array $periods): string
{
    return implode(' ', array_map(fn (Period $period): string => $period->key(), $periods));
}

function period(string $key): Period
{
    return Period::parse($key, match (true) {
        str_contains($key, 'W') => Frequency::Week,
        str_contains($key, 'Q') => Frequency::Quarter,
        str_starts_with($key, 'FY') => Frequency::Year,
        default => Frequency::Month,
    });
}

// ISO 8601:2004, 3.2.2 and annex: a week belongs to the year of its Thursday, so that 2004, 2009 and 2020 have 53.
it('knows the weeks of ISO 8601', function (string $week, string $next, ?string $yearEarlier, string $month) {
    $period = period($week);

    expect($period->plus(1)->key())->toBe($next)
        ->and($period->yearEarlier()?->key())->toBe($yearEarlier)
        ->and((new FinancialYear(4))->endMonth($period)->key())->toBe($month)
        ->and((new FinancialYear(4))->beginMonth($period)->key())->toBe($month);
})->with([
    'a year of 53 weeks' => ['2020-W53', '2021-W01', null, '2020-12'],
    '… and the one after it' => ['2021-W52', '2022-W01', '2020-W52', '2021-12'],
    'the Thursday is in January' => ['2005-W01', '2005-W02', '2004-W01', '2005-01'],
    'the Monday is in December' => ['2009-W01', '2009-W02', '2008-W01', '2009-01'],
    'across a month' => ['2026-W31', '2026-W32', '2025-W31', '2026-07'],
    'its Thursday is on the first' => ['2026-W40', '2026-W41', '2025-W40', '2026-10'],
    'before the epoch' => ['1969-W52', '1970-W01', '1968-W52', '1969-12'],
]);

it('counts weeks as the standard library does, for two centuries', function () {
    $day = new DateTimeImmutable('1900-01-04');
    for ($week = period('1900-W01'); $day < new DateTimeImmutable('2100-01-01'); $day = $day->modify('+7 days'), $week = $week->plus(1)) {
        expect($week->key())->toBe($day->format('o-\WW'))->and(Period::parse($week->key(), Frequency::Week)->ordinal)->toBe($week->ordinal);
    }
});

it('refuses periods that there are not', function (string $text, Frequency $frequency) {
    Period::parse($text, $frequency);
})->with([
    ['2021-W53', Frequency::Week], ['2026-W00', Frequency::Week], ['2026-W54', Frequency::Week], ['2026-08', Frequency::Week],
    ['FY2026-Q5', Frequency::Quarter], ['FY2026-Q0', Frequency::Quarter], ['2026-Q1', Frequency::Quarter],
    ['FY0000', Frequency::Year], ['2026', Frequency::Year], ['FY2026', Frequency::Month],
])->throws(InvalidArgumentException::class);

it('places quarters and years in the months of the financial year', function (int $start, string $key, string $begin, string $end, string $next, string $earlier) {
    $year = new FinancialYear($start);

    expect($year->beginMonth(period($key))->key())->toBe($begin)->and($year->endMonth(period($key))->key())->toBe($end)
        ->and(period($key)->plus(1)->key())->toBe($next)->and(period($key)->yearEarlier()?->key())->toBe($earlier);
})->with([
    [4, 'FY2026-Q2', '2026-07', '2026-09', 'FY2026-Q3', 'FY2025-Q2'],
    [4, 'FY2026-Q4', '2027-01', '2027-03', 'FY2027-Q1', 'FY2025-Q4'],
    [1, 'FY2026-Q4', '2026-10', '2026-12', 'FY2027-Q1', 'FY2025-Q4'],
    [4, 'FY2026', '2026-04', '2027-03', 'FY2027', 'FY2025'],
    [12, 'FY2026', '2026-12', '2027-11', 'FY2027', 'FY2025'],
]);

it('gives a span the periods that end in it, and a month the latest of a coarser KPI', function (Frequency $frequency, Span $span, string $chosen, string $periods) {
    expect(keys($span->periods($frequency, month($chosen), new FinancialYear(4))))->toBe($periods);
})->with([
    'the weeks of a month' => [Frequency::Week, Span::Month, '2026-07', '2026-W27 2026-W28 2026-W29 2026-W30 2026-W31'],
    'a quarter carried forward' => [Frequency::Quarter, Span::Month, '2026-08', 'FY2026-Q1'],
    'a quarter that ends now' => [Frequency::Quarter, Span::Month, '2026-09', 'FY2026-Q2'],
    'nothing ends in the quarter yet' => [Frequency::Quarter, Span::Quarter, '2026-08', ''],
    'quarters to date' => [Frequency::Quarter, Span::YearToDate, '2026-11', 'FY2026-Q1 FY2026-Q2'],
    'nothing in the year yet' => [Frequency::Quarter, Span::YearToDate, '2026-05', ''],
    'rolling quarters' => [Frequency::Quarter, Span::Rolling12, '2026-08', 'FY2025-Q2 FY2025-Q3 FY2025-Q4 FY2026-Q1'],
    'a year carried forward' => [Frequency::Year, Span::Month, '2026-08', 'FY2025'],
    'a year that ends now' => [Frequency::Year, Span::YearToDate, '2027-03', 'FY2026'],
    'the year of the last twelve months' => [Frequency::Year, Span::Rolling12, '2026-08', 'FY2025'],
]);

it('keeps to the months in which a KPI is measured', function (string $frequency, ?string $from, ?string $to, Span $span, string $periods) {
    $tenure = new Tenure($from === null ? null : month($from), $to === null ? null : month($to));

    expect(keys((new Timeline(new FinancialYear(4)))->due(Frequency::from($frequency), $tenure, month('2026-08'), $span)))->toBe($periods);
})->with([
    'from a month on' => ['month', '2026-06', null, Span::YearToDate, '2026-06 2026-07 2026-08'],
    'up to a month' => ['month', null, '2026-05', Span::YearToDate, '2026-04 2026-05'],
    'past' => ['month', null, '2026-05', Span::Month, ''],
    'a quarter that ended inside' => ['quarter', '2026-06', null, Span::Month, 'FY2026-Q1'],
    'a carried quarter from before' => ['quarter', '2026-07', null, Span::Month, ''],
    'weeks by their Thursday' => ['week', '2026-08', '2026-08', Span::Quarter, '2026-W32 2026-W33 2026-W34 2026-W35'],
]);

it('knows what is left of a financial year', function (string $frequency, string $month, array $left) {
    expect((new Timeline(new FinancialYear(4)))->left(Frequency::from($frequency), month($month)))->toBe($left);
})->with([
    'months' => ['month', '2026-08', [7, 12]],
    'the last month' => ['month', '2027-03', [0, 12]],
    'quarters, one of which ended' => ['quarter', '2026-08', [3, 4]],
    'a year that goes on' => ['year', '2026-08', [1, 1]],
]);
