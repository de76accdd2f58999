<?php

declare(strict_types=1);

use Brick\Math\BigDecimal;
use Kybernet\Core\Calendar\Span;
use Kybernet\Core\Measure\Accumulation;
use Kybernet\Core\Status\Deviation;
use Kybernet\Core\Status\Polarity;
use Kybernet\Core\Status\Reference;
use Kybernet\Core\Status\RuleSet;

use function Kybernet\Core\Tests\levelRule;
use function Kybernet\Core\Tests\measured;
use function Kybernet\Core\Tests\month;
use function Kybernet\Core\Tests\monthly;
use function Kybernet\Core\Tests\percentRule;
use function Kybernet\Core\Tests\scorecard;

it('judges the deviation from target in percent', function (Polarity $polarity, string $actual, string $target, string $green, string $amber, string $status) {
    $kpi = measured($polarity, Accumulation::Mean, [percentRule($polarity, $green, $amber)], ['2026-08' => $actual], ['2026-08' => $target]);

    expect(scorecard()->assess($kpi, month('2026-08'), Span::Month)->status->value)->toBe($status);
})->with([
    'on target' => [Polarity::Lower, '56', '56', '0', '5', 'green'],
    'exactly on the amber limit' => [Polarity::Lower, '58.8', '56', '0', '5', 'amber'],
    'a hair beyond it' => [Polarity::Lower, '58.80000001', '56', '0', '5', 'red'],
    'shown as 95.0, and not 95' => [Polarity::Higher, '94.96', '95', '0', '5', 'amber'],
    'beating a target is never adverse' => [Polarity::Higher, '200', '95', '0', '5', 'green'],
    'a green limit of −2 demands beating by 2' => [Polarity::Higher, '101.9', '100', '-2', '0', 'amber'],
    '… and is met by exactly 2' => [Polarity::Higher, '102', '100', '-2', '0', 'green'],
    'a negative target, higher is better' => [Polarity::Higher, '-105', '-100', '0', '5', 'amber'],
    'a negative target, lower is better' => [Polarity::Lower, '-94', '-100', '0', '5', 'red'],
    'zero accidents' => [Polarity::Lower, '0', '0', '0', '5', 'green'],
    'one accident' => [Polarity::Lower, '1', '0', '0', '5', 'red'],
    'zero beaten' => [Polarity::Lower, '-1', '0', '-10', '5', 'green'],
    'zero met where beating is demanded' => [Polarity::Lower, '0', '0', '-10', '5', 'amber'],
]);

// Progress of 104 towards 500 is 20.8 %; with cuts at 30 and 70 red, 30 exactly amber, 70 exactly green: common practice.
it('judges fixed levels', function (Polarity $polarity, string $actual, string $green, string $amber, string $status) {
    $kpi = measured($polarity, Accumulation::Latest, [levelRule($polarity, $green, $amber)], ['2026-08' => $actual]);

    expect(scorecard()->assess($kpi, month('2026-08'), Span::Month)->status->value)->toBe($status);
})->with([
    [Polarity::Higher, '20.8', '70', '30', 'red'],
    [Polarity::Higher, '30', '70', '30', 'amber'],
    [Polarity::Higher, '70', '70', '30', 'green'],
    [Polarity::Lower, '2.1', '2', '3', 'amber'],
    [Polarity::Lower, '3.00000001', '2', '3', 'red'],
]);

it('lets levels grow with the periods of a total, and only there', function (Accumulation $rule, string $status) {
    $kpi = measured(Polarity::Lower, $rule, [levelRule(Polarity::Lower, '10', '12')], monthly('2026-04', ['10', '10', '10']));

    expect(scorecard()->assess($kpi, month('2026-06'), Span::Quarter)->status->value)->toBe($status);
})->with([[Accumulation::Sum, 'green'], [Accumulation::Mean, 'green'], [Accumulation::Latest, 'green']]);

it('counts only reported periods when levels grow', function () {
    $kpi = measured(Polarity::Lower, Accumulation::Sum, [levelRule(Polarity::Lower, '10', '12')], monthly('2026-04', ['12', null, '12']));

    expect(scorecard()->assess($kpi, month('2026-06'), Span::Quarter)->status->value)->toBe('amber');
});

it('judges a mean of thirds that lies exactly on the limit as on it', function () {
    $kpi = measured(Polarity::Higher, Accumulation::Mean, [percentRule(Polarity::Higher)], monthly('2026-04', ['1', '1', '2']), monthly('2026-04', ['2', '1', '1']));

    expect(scorecard()->assess($kpi, month('2026-06'), Span::Quarter)->status->value)->toBe('green');
});

it('says why something has no colour', function (Polarity $polarity, array $rules, array $actuals, array $targets, string $status, string $reason) {
    $assessed = scorecard()->assess(measured($polarity, Accumulation::Sum, $rules, $actuals, $targets), month('2026-08'), Span::Month);

    expect($assessed->status->value)->toBe($status)->and($assessed->reason())->toContain($reason);
})->with([
    'tracked' => [Polarity::None, [], ['2026-08' => '1'], ['2026-08' => '1'], 'not-judged', 'only tracked'],
    'tracked, no reading' => [Polarity::None, [], [], [], 'not-judged', 'only tracked'],
    'rules begin later' => [Polarity::Higher, [percentRule(Polarity::Higher, from: '2026-09')], ['2026-08' => '1'], ['2026-08' => '1'], 'not-judged', 'no limits'],
    'no reading' => [Polarity::Higher, [percentRule(Polarity::Higher)], [], ['2026-08' => '1'], 'no-data', 'No reading'],
    'no target' => [Polarity::Higher, [percentRule(Polarity::Higher)], ['2026-08' => '1'], [], 'not-judged', 'no target'],
]);

it('keeps the colours of months before a rule changed', function () {
    $kpi = measured(
        Polarity::Lower,
        Accumulation::Mean,
        [percentRule(Polarity::Lower, '0', '8', '2026-08'), percentRule(Polarity::Lower, '0', '5', '2024-04')],
        monthly('2026-07', ['60', '60']),
        monthly('2026-07', ['56', '56']),
    );

    expect(scorecard()->status($kpi, month('2026-07'), Span::Month)->value)->toBe('red')
        ->and(scorecard()->status($kpi, month('2026-08'), Span::Month)->value)->toBe('amber')
        ->and(scorecard()->status($kpi, month('2026-08'), Span::YearToDate)->value)->toBe('amber');
});

it('explains a status by deviation, reference and limits', function (Polarity $polarity, RuleSet $rule, string $actual, string $target, string $sentence) {
    $kpi = measured($polarity, Accumulation::Mean, [$rule], ['2026-08' => $actual], ['2026-08' => $target], 'Ml/d', 1);

    expect(scorecard()->assess($kpi, month('2026-08'), Span::Month)->reason())->toBe($sentence);
})->with([
    [Polarity::Lower, percentRule(Polarity::Lower), '64', '56', 'Off course: 14.3 % over target. On course at target or better, drifting to 5 % over. Limits since January 2020.'],
    [Polarity::Higher, percentRule(Polarity::Higher, '-2', '3'), '100', '100', 'Drifting: exactly on target. On course from 2 % over, drifting to 3 % under. Limits since January 2020.'],
    'rounding never moves it onto a limit' => [Polarity::Lower, percentRule(Polarity::Lower), '105.01', '100', 'Off course: 5.01 % over target. On course at target or better, drifting to 5 % over. Limits since January 2020.'],
    'a target of zero' => [Polarity::Lower, percentRule(Polarity::Lower), '1', '0', 'Off course: 1 Ml/d against a target of 0. On course at target or better, drifting to 5 % over. Limits since January 2020.'],
    'levels' => [Polarity::Higher, levelRule(Polarity::Higher, '70', '30'), '69.96', '1', 'Drifting: at 69.96 Ml/d. On course from 70 Ml/d, drifting from 30 Ml/d. Limits since January 2020.'],
]);

it('refuses rule sets that cannot judge', function (Polarity $polarity, Reference $reference, Deviation $measure, string $green, string $amber, array $at) {
    expect(array_keys(RuleSet::problems($polarity, Accumulation::Sum, $reference, $measure, BigDecimal::of($green), BigDecimal::of($amber))))->toBe($at);
})->with([
    'sound' => [Polarity::Higher, Reference::Target, Deviation::Percent, '0', '5', []],
    'equal limits leave no amber' => [Polarity::Higher, Reference::Target, Deviation::Percent, '5', '5', []],
    'green looser than amber' => [Polarity::Higher, Reference::Target, Deviation::Percent, '6', '5', ['amber']],
    'levels of higher run down' => [Polarity::Higher, Reference::None, Deviation::Level, '70', '71', ['amber']],
    'levels of lower run up' => [Polarity::Lower, Reference::None, Deviation::Level, '3', '2', ['amber']],
    'wrong pairing' => [Polarity::Lower, Reference::Target, Deviation::Level, '2', '3', ['measure']],
    'tracked' => [Polarity::None, Reference::Target, Deviation::Percent, '0', '5', ['polarity']],
]);

it('never improves a status when the actual gets worse, and mirrors with polarity and sign', function () {
    mt_srand(20260823);
    $order = ['red' => 0, 'amber' => 1, 'green' => 2];
    for ($round = 0; $round < 300; $round++) {
        $target = (string) mt_rand(-500, 500);
        [$better, $worse] = [mt_rand(-999, 999), mt_rand(-999, 999)];
        [$better, $worse] = [(string) max($better, $worse), (string) min($better, $worse)];
        $green = mt_rand(-10, 20);
        $amber = $green + mt_rand(0, 30);
        $judge = fn (Polarity $polarity, string $actual, string $target): string => scorecard()->status(measured(
            $polarity, Accumulation::Mean, [percentRule($polarity, (string) $green, (string) $amber)],
            ['2026-08' => $actual], ['2026-08' => $target],
        ), month('2026-08'), Span::Month)->value;
        $negated = fn (string $figure): string => (string) BigDecimal::of($figure)->negated();

        expect($order[$judge(Polarity::Higher, $worse, $target)])->toBeLessThanOrEqual($order[$judge(Polarity::Higher, $better, $target)])
            ->and($judge(Polarity::Lower, $negated($worse), $negated($target)))->toBe($judge(Polarity::Higher, $worse, $target));
    }
});
