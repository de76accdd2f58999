<?php

declare(strict_types=1);

use Kybernet\Core\Assessment;
use Kybernet\Core\Calendar\Span;
use Kybernet\Core\Compare\Variance;
use Kybernet\Core\Measure\Accumulation;
use Kybernet\Core\Measure\Exact;
use Kybernet\Core\Status\Polarity;

use function Kybernet\Core\Tests\measured;
use function Kybernet\Core\Tests\month;
use function Kybernet\Core\Tests\monthly;
use function Kybernet\Core\Tests\percentRule;
use function Kybernet\Core\Tests\scorecard;

function toDate(array $actuals, array $targets, Accumulation $rule = Accumulation::Sum): Assessment
{
    $kpi = measured(Polarity::Higher, $rule, [percentRule(Polarity::Higher)], $actuals, $targets);

    return scorecard()->assess($kpi, month('2026-07'), Span::YearToDate);
}

it('gathers target and prior year over the months that are reported', function () {
    $lastYear = monthly('2025-04', ['9', '100', '9', '9']);
    $assessed = toDate($lastYear + monthly('2026-04', ['10', null, '10', '10']), monthly('2026-04', ['11', '11', '11', '11']));

    expect(count($assessed->figures->reported))->toBe(3)
        ->and($assessed->figures->missing()[0]->key())->toBe('2026-05')
        ->and((string) $assessed->figures->actual)->toBe('30')
        ->and((string) $assessed->figures->goal?->target)->toBe('33')
        ->and((string) $assessed->prior->figure)->toBe('27')
        ->and((string) $assessed->variance?->difference)->toBe('-3')
        ->and((string) $assessed->change?->difference)->toBe('3');
});

it('compares over the months that have both, and shows the figure of all', function () {
    $assessed = toDate(monthly('2025-05', ['8', '8']) + monthly('2026-04', ['10', '10', '10', '4']), monthly('2026-04', ['10', '10', '10']));

    expect((string) $assessed->figures->actual)->toBe('34')
        ->and($assessed->figures->compared)->toBe(3)
        ->and((string) $assessed->variance?->difference)->toBe('0')
        ->and($assessed->status->value)->toBe('green')
        ->and($assessed->prior->compared)->toBe(2)
        ->and((string) $assessed->change?->difference)->toBe('4');
});

it('shows the whole target when nothing is reported yet', function () {
    $assessed = toDate([], monthly('2026-04', ['10', '10', '10', '10']));

    expect($assessed->status->value)->toBe('no-data')
        ->and($assessed->figures->actual)->toBeNull()
        ->and((string) $assessed->figures->goal?->target)->toBe('40')
        ->and($assessed->variance)->toBeNull();
});

it('compares the latest month that has both', function () {
    $assessed = toDate(monthly('2026-04', ['10', '11', '12']), monthly('2026-04', ['9', '9']), Accumulation::Latest);

    expect((string) $assessed->figures->actual)->toBe('12')->and((string) $assessed->variance?->difference)->toBe('2');
});

// 430 against a goal of 480 is 50 short; 390 after 300 is up 90: common practice.
it('tells differences with their meaning', function (string $actual, string $reference, Polarity $polarity, string $difference, ?string $percent, string $effect) {
    $variance = Variance::between(Exact::of($actual), Exact::of($reference), $polarity);

    expect((string) $variance->difference)->toBe($difference)
        ->and($variance->percent === null ? null : (string) $variance->percent)->toBe($percent)
        ->and($variance->effect->value)->toBe($effect);
})->with([
    ['430', '480', Polarity::Higher, '-50', '-10.416666666667', 'adverse'],
    ['390', '300', Polarity::Higher, '90', '30', 'favourable'],
    ['390', '300', Polarity::Lower, '90', '30', 'adverse'],
    ['390', '300', Polarity::None, '90', '30', 'none'],
    ['300', '300', Polarity::Lower, '0', '0', 'none'],
    ['3', '0', Polarity::Lower, '3', null, 'adverse'],
    ['-90', '-100', Polarity::Higher, '10', '10', 'favourable'],
]);

it('steps from the previous month on a single month only', function () {
    $kpi = measured(Polarity::Lower, Accumulation::Mean, [], monthly('2026-07', ['8', '10']));

    expect((string) scorecard()->assess($kpi, month('2026-08'), Span::Month)->step?->percent)->toBe('25')
        ->and(scorecard()->assess($kpi, month('2026-08'), Span::Quarter)->step)->toBeNull();
});

it('shades zones that agree with the status at their edges', function (Polarity $polarity, string $green, string $amber) {
    $kpi = fn (string $actual) => measured($polarity, Accumulation::Mean, [percentRule($polarity, '2', '5')], ['2026-07' => $actual], ['2026-07' => '-40']);
    $zones = scorecard()->assess($kpi('0'), month('2026-07'), Span::Month)->zones();

    expect((string) $zones?->green)->toBe($green)->and((string) $zones?->amber)->toBe($amber)
        ->and(scorecard()->status($kpi($green), month('2026-07'), Span::Month)->value)->toBe('green')
        ->and(scorecard()->status($kpi($amber), month('2026-07'), Span::Month)->value)->toBe('amber');
})->with([[Polarity::Higher, '-40.8', '-42'], [Polarity::Lower, '-39.2', '-38']]);
