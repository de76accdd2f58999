<?php

declare(strict_types=1);

use Brick\Math\BigDecimal;
use Kybernet\Core\Measure\Accumulation;
use Kybernet\Core\Measure\Exact;
use Kybernet\Core\Measure\TargetPlan;

/** @param  list<string|null>  $figures */
function exacts(array $figures): array
{
    return array_map(fn (?string $figure): ?Exact => $figure === null ? null : Exact::of($figure), $figures);
}

/** @return list<string|null> */
function planned(TargetPlan $plan): array
{
    return array_map(fn (?BigDecimal $target): ?string => $target?->__toString(), $plan->targets);
}

it('spreads the figure of a year, and places what rounding leaves on the last open period', function (string $year, array $weights, array $kept, Accumulation $rule, int $decimals, array $targets, string $remainder, ?int $at) {
    $plan = TargetPlan::spread(BigDecimal::of($year), exacts($weights), array_map(BigDecimal::of(...), $kept), $rule, $decimals);

    expect(planned($plan))->toBe($targets)->and((string) $plan->remainder)->toBe($remainder)->and($plan->remainderAt)->toBe($at);
})->with([
    'evenly' => ['12', ['1', '1', '1', '1'], [], Accumulation::Sum, 0, ['3', '3', '3', '3'], '0', null],
    'evenly, with a rest' => ['100', ['1', '1', '1'], [], Accumulation::Sum, 0, ['33', '33', '34'], '1', 2],
    'a rest below nothing' => ['20', ['1', '1', '1'], [], Accumulation::Sum, 0, ['7', '7', '6'], '-1', 2],
    'with decimals' => ['10', ['1', '1', '1'], [], Accumulation::Sum, 2, ['3.33', '3.33', '3.34'], '0.01', 2],
    'by shape' => ['200', ['30', '50', '20'], [], Accumulation::Sum, 0, ['60', '100', '40'], '0', null],
    'a level is itself in every period' => ['90', ['1', '1', '1', '1'], [], Accumulation::Mean, 0, ['90', '90', '90', '90'], '0', null],
    'a level by shape keeps its mean' => ['10', ['1', '2', '3'], [], Accumulation::Mean, 0, ['5', '10', '15'], '0', null],
    'the latest is the figure itself' => ['113', ['1', '1', '1', '1'], [0 => '111'], Accumulation::Latest, 0, ['111', '113', '113', '113'], '0', null],
    'the latest by shape ends at the figure' => ['30', ['1', '4', '2'], [], Accumulation::Latest, 0, ['15', '60', '30'], '0', null],
    'the highest by shape reaches the figure' => ['30', ['1', '4', '2'], [], Accumulation::Maximum, 1, ['7.5', '30.0', '15.0'], '0', null],
    'the lowest by shape reaches the figure' => ['30', ['1', '4', '2'], [], Accumulation::Minimum, 0, ['30', '120', '60'], '0', null],
    'around what is closed' => ['100', ['1', '1', '1', '1'], [0 => '40'], Accumulation::Sum, 0, ['40', '20', '20', '20'], '0', null],
    'a level around what is closed' => ['10', ['1', '1', '1', '1'], [0 => '16'], Accumulation::Mean, 0, ['16', '8', '8', '8'], '0', null],
    'the last is closed' => ['10', ['1', '1', '1'], [2 => '3'], Accumulation::Sum, 0, ['4', '3', '3'], '-1', 1],
    'a total below nothing' => ['-10', ['1', '1', '1'], [], Accumulation::Sum, 0, ['-3', '-3', '-4'], '-1', 2],
]);

it('always adds up: to the total, or to the mean', function (Accumulation $rule) {
    mt_srand(7);
    foreach (range(1, 200) as $ignored) {
        $count = mt_rand(1, 12);
        $weights = exacts(array_map(fn (): string => (string) (mt_rand(1, 900) / 10), range(1, $count)));
        $year = BigDecimal::of((string) (mt_rand(-99999, 99999) / 100));
        $plan = TargetPlan::spread($year, $weights, [], $rule, 2);
        $sum = BigDecimal::sum(...$plan->targets);
        expect($sum->isEqualTo($rule === Accumulation::Sum ? $year : $year->multipliedBy($count)))->toBeTrue();
    }
})->with([Accumulation::Sum, Accumulation::Mean]);

it('cannot spread to nothing', function (array $weights, array $kept, string $words) {
    expect(fn () => TargetPlan::spread(BigDecimal::of(1), exacts($weights), array_map(BigDecimal::of(...), $kept), Accumulation::Sum, 0))->toThrow(InvalidArgumentException::class, $words);
})->with([
    [['1', '1'], [0 => '1', 1 => '1'], 'closed'],
    [['0', '0'], [], 'more than 0'],
]);

it("grows last year's figures by a percentage and an amount", function (string $percent, string $amount, array $targets) {
    expect(planned(TargetPlan::grown(exacts(['100', null, '-50', '7']), BigDecimal::of($percent), BigDecimal::of($amount), [3 => BigDecimal::of('9')], 1)))->toBe($targets);
})->with([
    'by a tenth' => ['10', '0', ['110.0', null, '-45.0', '9']],
    'by an amount' => ['0', '-2.5', ['97.5', null, '-52.5', '9']],
    'by both' => ['5', '1', ['106.0', null, '-46.5', '9']],
]);
