<?php

declare(strict_types=1);

use Kybernet\Core\Compare\Correlation;
use Kybernet\Core\Compare\Peers;
use Kybernet\Core\Measure\Exact;
use Kybernet\Core\Status\Polarity;
use Kybernet\Core\Trend\ControlChart;
use Kybernet\Core\Trend\MovingAverage;
use Kybernet\Core\Trend\Regression;
use Kybernet\Core\Trend\Signal;
use Kybernet\Core\Trend\StudentT;
use Kybernet\Core\Trend\Trend;

use function Kybernet\Core\Tests\month;

/** How far a value is from the expected one, as a share of it. */
function away(?float $value, float $expected): float
{
    return abs((float) $value / $expected - 1);
}

/*
 * NIST Statistical Reference Datasets, linear regression, data set Norris (36 observations of a study of ozone monitors;
 * lower level of difficulty), with its certified values. The figures are from memory; that they give the certified
 * values to twelve digits says that they are right.
 */
it('gives the certified values of NIST StRD Norris', function () {
    $y = [0.1, 338.8, 118.1, 888.0, 9.2, 228.1, 668.5, 998.5, 449.1, 778.9, 559.2, 0.3, 0.1, 778.1, 668.8, 339.3, 448.9, 10.8, 557.7, 228.3, 998.0, 888.8, 119.6, 0.3, 0.6, 557.6, 339.3, 888.0, 998.5, 778.9, 10.2, 117.6, 228.9, 668.4, 449.2, 0.2];
    $x = [0.2, 337.4, 118.2, 884.6, 10.1, 226.5, 666.3, 996.3, 448.6, 777.0, 558.2, 0.4, 0.6, 775.5, 666.9, 338.0, 447.5, 11.6, 556.0, 228.1, 995.8, 887.6, 120.2, 0.3, 0.3, 556.8, 339.1, 887.2, 999.0, 779.0, 11.1, 118.3, 229.2, 669.1, 448.9, 0.5];
    $line = Regression::fit($x, $y);

    expect($line->n)->toBe(36)->and([
        away($line->intercept, -0.262323073774029),
        away($line->slope, 1.00211681802045),
        away($line->interceptError, 0.232818234301152),
        away($line->slopeError, 0.429796848199937E-03),
        away($line->rSquared, 0.999993745883712),
    ])->each->toBeLessThan(1e-12);
});

// Anscombe (1973), "Graphs in Statistical Analysis": four sets with the same line, y = 3.00 + 0.500 x, r² 0.67, t 4.24.
it('gives Anscombe’s quartet its one line', function (array $x, array $y) {
    $line = Regression::fit($x, $y);

    expect(round($line->intercept, 2))->toBe(3.0)->and(round($line->slope, 3))->toBe(0.5)
        ->and(round((float) $line->rSquared, 2))->toBe(0.67)->and(round($line->slopeError, 3))->toBe(0.118)->and(round((float) $line->t, 1))->toBe(4.2);
})->with(function () {
    $x = [10.0, 8.0, 13.0, 9.0, 11.0, 14.0, 6.0, 4.0, 12.0, 7.0, 5.0];
    yield [$x, [8.04, 6.95, 7.58, 8.81, 8.33, 9.96, 7.24, 4.26, 10.84, 4.82, 5.68]];
    yield [$x, [9.14, 8.14, 8.74, 8.77, 9.26, 8.10, 6.13, 3.10, 9.13, 7.26, 4.74]];
    yield [$x, [7.46, 6.77, 12.74, 7.11, 7.81, 8.84, 6.08, 5.39, 8.15, 6.42, 5.73]];
    yield [[8.0, 8.0, 8.0, 8.0, 8.0, 8.0, 8.0, 19.0, 8.0, 8.0, 8.0], [6.58, 5.76, 7.71, 8.84, 8.47, 7.04, 5.25, 12.50, 5.56, 7.91, 6.89]];
});

// Two-sided critical values of Student's t: NIST/SEMATECH e-Handbook, 1.3.6.7.2.
it('knows Student’s t', function (float $t, int $freedom, float $p) {
    expect(StudentT::twoSided($t, $freedom))->toEqualWithDelta($p, 1e-4)->and(StudentT::twoSided(-$t, $freedom))->toBe(StudentT::twoSided($t, $freedom));
})->with([[12.706, 1, 0.05], [4.303, 2, 0.05], [2.776, 4, 0.05], [2.228, 10, 0.05], [3.169, 10, 0.01], [1.812, 10, 0.1], [2.042, 30, 0.05], [0.0, 5, 1.0]]);

// Abramowitz and Stegun, 26.7.3 and 26.7.4: sums that end, for whole degrees of freedom; another way than the core's.
it('agrees with the finite sums of the handbook', function () {
    for ($freedom = 1; $freedom <= 40; $freedom++) {
        foreach ([0.05, 0.7, 1.3, 2.2, 4.5] as $t) {
            $angle = atan($t / sqrt($freedom));
            $term = $sum = $freedom % 2 === 0 ? 1.0 : cos($angle);
            for ($k = 1; $k < intdiv($freedom, 2); $k++) {
                $term *= cos($angle) ** 2 * ($freedom % 2 === 0 ? (2 * $k - 1) / (2 * $k) : 2 * $k / (2 * $k + 1));
                $sum += $term;
            }
            $inside = $freedom % 2 === 0 ? sin($angle) * $sum : 2 / M_PI * ($angle + ($freedom === 1 ? 0.0 : sin($angle) * $sum));
            expect(StudentT::twoSided($t, $freedom))->toEqualWithDelta(1 - $inside, 1e-12);
        }
    }
});

it('keeps the digits of a very small p, and needs a degree of freedom', function () {
    // Exact for two degrees of freedom: p = 1 − t ÷ √(2 + t²), which is 1 ÷ t² for a large t.
    expect(away(StudentT::twoSided(1e6, 2), 1e-12))->toBeLessThan(1e-6);
    StudentT::twoSided(1.0, 0);
})->throws(InvalidArgumentException::class);

it('agrees with a general-purpose library on randomised series', function () {
    $cases = json_decode((string) file_get_contents(__DIR__.'/../Fixtures/statistics.json'), true);
    expect($cases)->toHaveCount(40);
    foreach ($cases as $case) {
        $keys = array_map(fn (int $index): string => "p{$index}", array_keys($case['y']));
        $line = Regression::fit(array_map(floatval(...), range(1, count($case['y']))), array_map(floatval(...), $case['y']));
        $peers = Peers::of(array_combine($keys, array_map(fn (float|int $figure): Exact => Exact::of((string) $figure), $case['y'])), Polarity::Higher);
        $one = array_combine($keys, array_map(floatval(...), $case['y']));
        $other = array_combine($keys, array_map(floatval(...), $case['other']));
        expect([$line->slope, $line->intercept, $line->rSquared, $line->slopeError, $line->t])
            ->toEqualWithDelta([$case['slope'], $case['intercept'], $case['rSquared'], $case['slopeError'], $case['t']], 1e-8)
            ->and($line->p)->toEqualWithDelta($case['p'], 1e-8)
            ->and(Correlation::pearson($one, $other))->toEqualWithDelta($case['pearson'], 1e-10)
            ->and(Correlation::spearman($one, $other))->toEqualWithDelta($case['spearman'], 1e-10)
            ->and(array_map($peers->quantile(...), [0.1, 0.25, 0.5, 0.75, 0.9]))->toEqualWithDelta($case['quantiles'], 1e-9)
            ->and(($case['y'][0] - $peers->mean()) / $peers->zScores()['p0'])->toEqualWithDelta($case['deviation'], 1e-8);
    }
});

it('tells a trend and what it means', function (array $figures, Polarity $polarity, ?string $direction, ?string $meaning) {
    $trend = Trend::over(array_map(fn (?string $figure): ?float => $figure === null ? null : (float) $figure, $figures), $polarity);

    expect($trend?->direction->value)->toBe($direction)->and($trend?->meaning?->value)->toBe($meaning);
})->with([
    'five readings are too few' => [['1', null, '2', '3', null, '4', '5'], Polarity::Higher, null, null],
    'rising is better' => [['1', '2', '3', '4', '5', '6'], Polarity::Higher, 'rising', 'improving'],
    'rising is worse' => [['1', '2.5', '3', '4', '5', '7'], Polarity::Lower, 'rising', 'worsening'],
    'falling, with gaps' => [['9', null, '8', '7.5', null, '5', '4', '3'], Polarity::Higher, 'falling', 'worsening'],
    'nothing but noise' => [['1', '9', '2', '8', '3', '7'], Polarity::Higher, 'steady', 'steady'],
    'constant' => [['5', '5', '5', '5', '5', '5'], Polarity::Lower, 'steady', 'steady'],
    'a band that moves' => [['1', '2', '3', '4', '5', '6'], Polarity::Band, 'rising', null],
    'a band that does not' => [['5', '5', '5', '5', '5', '5'], Polarity::Band, 'steady', 'steady'],
    'only tracked' => [['5', '5', '5', '5', '5', '5'], Polarity::None, 'steady', null],
]);

it('says of an exact line and of a constant what can be said', function () {
    $exact = Regression::fit([1.0, 2.0, 3.0, 4.0], [0.1, 0.2, 0.30000000000000004, 0.4]);
    $flat = Regression::fit([1.0, 2.0, 4.0], [7.0, 7.0, 7.0]);

    expect([$exact->slopeError, $exact->t, $exact->p])->toBe([0.0, null, 0.0])->and($exact->slope)->toEqualWithDelta(0.1, 1e-15)
        ->and([$flat->slope, $flat->intercept, $flat->rSquared, $flat->t, $flat->p])->toBe([0.0, 7.0, null, null, 1.0]);
});

it('fits no line to points that have none', fn (array $x, array $y) => Regression::fit($x, $y))->with([
    [[1.0, 2.0], [1.0, 2.0]], [[1.0, 1.0, 1.0], [1.0, 2.0, 3.0]], [[1.0, 2.0, 3.0], [1.0, 2.0]],
])->throws(InvalidArgumentException::class);

/** @return list<array{Kybernet\Core\Calendar\Period, float|null}> */
function window(array $figures): array
{
    return array_map(fn (int $index): array => [month('2026-01')->plus($index), $figures[$index] === null ? null : (float) $figures[$index]], array_keys($figures));
}

// NIST/SEMATECH e-Handbook 6.3.2.2: flow rates of ten batches; mean 50.81, mean moving range 1.8778, limits 45.8 to 55.8.
it('gives the individuals chart of the e-Handbook', function () {
    $flow = [49.6, 47.6, 49.9, 51.3, 47.8, 51.2, 52.6, 52.4, 53.6, 52.1];
    $chart = ControlChart::of($flow, window($flow));

    expect(round((float) $chart?->centre, 2))->toBe(50.81)
        ->and($chart?->upper)->toEqualWithDelta(55.8041, 0.002)->and($chart?->lower)->toEqualWithDelta(45.8159, 0.002)
        ->and($chart?->upperRange)->toEqualWithDelta(3.268 * 1.87778, 0.001)
        ->and($chart?->signals)->toBe([]);
});

it('looks for signals against the limits', function (array $figures, array $signals) {
    // A baseline that swings by 1 around 10: limits 7.34 and 12.66, two thirds of the way at 8.227 and 11.773.
    $chart = ControlChart::of([9.5, 10.5, 9.5, 10.5, 9.5, 10.5, 9.5, 10.5], window($figures));

    expect(array_map(fn (Signal $signal): string => substr($signal->period->key(), 5)." {$signal->rule->value} {$signal->side->value}", $chart->signals ?? []))->toBe($signals);
})->with([
    'outside, told each time' => [[10, 13, 13, 7], ['02 outside-limits upper', '03 outside-limits upper', '03 two-of-three upper', '04 outside-limits lower']],
    'on the limit is not outside' => [[12.66, 10, 7.34], []],
    'eight on one side, told once' => [[11, 11, 11, 11, 11, 11, 11, 11, 11, 11], ['08 one-side upper']],
    'a point on the centre breaks it' => [[11, 11, 11, 11, 11, 11, 11, 10, 11, 11], []],
    'a gap breaks it' => [[9, 9, 9, null, 9, 9, 9, 9, 9, 9], []],
    'six steadily falling' => [[11, 10.8, 10.6, 10.4, 10.2, 9.9, 9.8], ['06 steady-run lower']],
    'told again after a point at which it did not hold' => [[9, 9.1, 9.2, 9.3, 9.4, 9.5, 9.4, 9.5, 9.6, 9.7, 9.8, 9.9], ['06 steady-run upper', '08 one-side lower', '12 steady-run upper']],
    'two of three near the same limit' => [[12, 10, 12, 10, 8, 12], ['03 two-of-three upper']],
    '… the last among them' => [[12, 12, 10], []],
    '… of three readings in a row' => [[12, null, 12], []],
]);

it('takes limits from enough readings next to each other only', function (array $baseline, bool $isThere) {
    expect(ControlChart::of($baseline, []) !== null)->toBe($isThere);
})->with([
    'seven' => [[1.0, 2.0, 1.0, 2.0, 1.0, 2.0, 1.0], false],
    'eight' => [[1.0, 2.0, 1.0, 2.0, 1.0, 2.0, 1.0, 2.0], true],
    'none next to another' => [[1.0, null, 1.0, null, 1.0, null, 1.0, null, 1.0, null, 1.0, null, 1.0, null, 1.0], false],
]);

it('breaks the moving range at a gap', function () {
    // Without the gap the jump from 2 to 102 would be a range of 100.
    $chart = ControlChart::of([1.0, 2.0, 1.0, 2.0, null, 102.0, 101.0, 102.0, 101.0], []);

    expect((float) $chart?->upper - (float) $chart?->centre)->toEqualWithDelta(2.66, 1e-9);
});

it('averages as many periods as it is asked to, where all are there', function () {
    $averages = MovingAverage::of(array_map(fn (?string $figure): ?Exact => $figure === null ? null : Exact::of($figure), ['1', '2', '4', null, '5', '6', '8']), 3);

    expect(array_map(fn (?Exact $average): ?string => $average === null ? null : (string) $average, $averages))->toBe([null, null, '2.333333333333', null, null, null, '6.333333333333']);
    MovingAverage::of([], 0);
})->throws(InvalidArgumentException::class);

// Hyndman and Fan (1996), type 7: p(k) = (k − 1) ÷ (n − 1).
it('ranks peers, and tells where each one lies', function () {
    $figures = array_map(Exact::of(...), ['A' => '10', 'B' => '20', 'C' => '20', 'D' => '40', 'E' => '80']);
    $peers = Peers::of($figures, Polarity::Lower);

    expect($peers->ranks())->toBe(['A' => 1, 'B' => 2, 'C' => 2, 'D' => 4, 'E' => 5])
        ->and(Peers::of($figures, Polarity::Higher)->ranks())->toBe(['A' => 5, 'B' => 3, 'C' => 3, 'D' => 2, 'E' => 1])
        ->and(array_filter(Peers::of($figures, Polarity::None)->ranks()))->toBe([])
        ->and($peers->percentiles())->toEqual(['A' => 0, 'B' => 25, 'C' => 25, 'D' => 75, 'E' => 100])
        ->and($peers->quartiles())->toEqual([20, 20, 40])
        ->and($peers->quantile(0.9))->toEqualWithDelta(64.0, 1e-9)
        ->and($peers->mean())->toEqual(34)
        ->and($peers->tenths())->toBe(['best' => ['A'], 'worst' => ['E']])
        ->and(array_sum($peers->zScores()))->toEqualWithDelta(0.0, 1e-12);
});

it('has quantiles at the very ends, and none beyond', function () {
    $peers = Peers::of(array_map(Exact::of(...), ['A' => '3', 'B' => '1', 'C' => '8']), Polarity::Lower);

    expect([$peers->quantile(0), $peers->quantile(1), $peers->quantile(0.75)])->toEqual([1, 8, 5.5])
        ->and(fn () => $peers->quantile(-0.001))->toThrow(InvalidArgumentException::class, 'A quantile is for a share from 0 to 1.')
        ->and(fn () => $peers->quantile(1.001))->toThrow(InvalidArgumentException::class);
});

it('has an answer for peers that are equal, and for one alone', function () {
    $equal = Peers::of(array_map(Exact::of(...), ['A' => '5', 'B' => '5']), Polarity::Higher);
    $alone = Peers::of(['A' => Exact::of(5)], Polarity::Higher);

    expect($equal->tenths())->toBe(['best' => [], 'worst' => []])->and($equal->zScores())->toEqual(['A' => 0, 'B' => 0])
        ->and($alone->percentiles())->toEqual(['A' => 50])->and($alone->zScores())->toEqual(['A' => 0])
        ->and(Correlation::pearson(['a' => 1.0, 'b' => 2.0], ['a' => 1.0, 'b' => 2.0]))->toBeNull()
        ->and(Correlation::pearson(['a' => 1.0, 'b' => 1.0, 'c' => 1.0], ['a' => 1.0, 'b' => 2.0, 'c' => 3.0]))->toBeNull()
        ->and(Correlation::spearman(['a' => 1.0, 'b' => 2.0, 'c' => 9.0, 'd' => 0.0], ['a' => 10.0, 'b' => 20.0, 'c' => 21.0]))->toEqualWithDelta(1.0, 1e-12);
    Peers::of([], Polarity::Higher);
})->throws(InvalidArgumentException::class);
