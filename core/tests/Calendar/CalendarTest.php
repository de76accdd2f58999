<?php

declare(strict_types=1);

use Kybernet\Core\Calendar\DueDate;
use Kybernet\Core\Calendar\FinancialYear;
use Kybernet\Core\Calendar\Frequency;
use Kybernet\Core\Calendar\Period;
use Kybernet\Core\Calendar\Span;

use function Kybernet\Core\Tests\month;

it('steps by months and years across year ends', function (string $from, int $months, string $to) {
    expect(month($from)->plus($months)->key())->toBe($to);
})->with([
    ['2026-08', 0, '2026-08'],
    ['2026-12', 1, '2027-01'],
    ['2026-01', -1, '2025-12'],
    ['2026-03', -12, '2025-03'],
    ['2026-03', -27, '2023-12'],
]);

it('refuses what is not a month', function (string $text) {
    Period::parse($text);
})->with(['2026-13', '2026-00', '0000-05', '2026-8', '26-08', '2026-08-01', " 2026-08\n", ''])
    ->throws(InvalidArgumentException::class);

it('labels a financial year by where it starts', function (int $start, string $month, string $label, string $first) {
    $year = new FinancialYear($start);

    expect($year->label(month($month)))->toBe($label)
        ->and($year->start(month($month))->key())->toBe($first)
        ->and($year->months(month($month)))->toHaveCount(12);
})->with([
    'January year' => [1, '2026-12', '2026', '2026-01'],
    'April year, first month' => [4, '2026-04', '2026/27', '2026-04'],
    'April year, last month' => [4, '2027-03', '2026/27', '2026-04'],
    'across a century' => [7, '2099-09', '2099/00', '2099-07'],
    'December year' => [12, '2026-11', '2025/26', '2025-12'],
]);

it('refuses a financial year that starts in no month', fn () => new FinancialYear(13))->throws(InvalidArgumentException::class);

it('spans a month, a quarter, the year to date and twelve months', function (Span $span, int $start, string $chosen, string $first, int $count) {
    $periods = $span->periods(Frequency::Month, month($chosen), new FinancialYear($start));

    expect($periods)->toHaveCount($count)
        ->and($periods[0]->key())->toBe($first)
        ->and($periods[$count - 1]->key())->toBe($chosen);
})->with([
    [Span::Month, 4, '2026-08', '2026-08', 1],
    [Span::Quarter, 4, '2026-08', '2026-07', 2],
    [Span::Quarter, 4, '2026-07', '2026-07', 1],
    [Span::Quarter, 2, '2026-01', '2025-11', 3],
    [Span::YearToDate, 4, '2026-08', '2026-04', 5],
    [Span::YearToDate, 4, '2027-03', '2026-04', 12],
    [Span::YearToDate, 1, '2026-01', '2026-01', 1],
    [Span::Rolling12, 4, '2026-08', '2025-09', 12],
]);

it('expects a reading in the month that follows, at the latest on its last day', function (string $month, int $day, string $due) {
    expect(DueDate::after(Period::parse($month), $day))->toBe($due);
})->with([
    ['2026-08', 8, '2026-09-08'], ['2026-08', 31, '2026-09-30'], ['2026-12', 31, '2027-01-31'],
    ['2027-01', 30, '2027-02-28'], ['2028-01', 30, '2028-02-29'],
]);
