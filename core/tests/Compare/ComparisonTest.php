<?php

declare(strict_types=1);

use Kybernet\Core\Compare\Association;
use Kybernet\Core\Compare\Comparison;
use Kybernet\Core\Compare\Gain;
use Kybernet\Core\Compare\Moving;
use Kybernet\Core\Compare\PeerFigure;
use Kybernet\Core\Compare\Peers;
use Kybernet\Core\Compare\Recurring;
use Kybernet\Core\Compare\Variance;
use Kybernet\Core\Measure\Accumulation;
use Kybernet\Core\Measure\Band;
use Kybernet\Core\Measure\Exact;
use Kybernet\Core\Status\Polarity;

/**
 * @param  array<string, string|array{0: string|null, 1?: string|null, 2?: string}|null>  $units  figure; or figure and target; or figure and both limits of a band
 * @param  int  $reported  periods of the span that have a reading
 */
function compared(array $units, Polarity $polarity = Polarity::Lower, Accumulation $accumulation = Accumulation::Sum, int $left = 7, int $reported = 1): Comparison
{
    return Comparison::of(peerFigures($units, $reported), $polarity, $accumulation, $left, 12);
}

/**
 * @param  array<string, string|array{0: string|null, 1?: string|null, 2?: string}|null>  $units
 * @return array<string, PeerFigure>
 */
function peerFigures(array $units, int $reported = 1): array
{
    $exact = fn (?string $figure): ?Exact => $figure === null ? null : Exact::of($figure);

    return array_map(fn (string|array|null $unit): PeerFigure => match (true) {
        ! is_array($unit) => new PeerFigure($exact($unit), null, null, $reported),
        isset($unit[2]) => new PeerFigure($exact($unit[0]), null, new Band(Exact::of((string) $unit[1]), Exact::of($unit[2])), $reported),
        default => new PeerFigure($exact($unit[0]), $exact($unit[1] ?? null), null, $reported),
    }, $units);
}

/** @return list<mixed> units, change, to the year end */
function gained(?Gain $gain): ?array
{
    return $gain === null ? null : [$gain->units, (string) $gain->change, $gain->toYearEnd === null ? null : (string) $gain->toYearEnd];
}

// Rules 11: a unit that is worse contributes the distance to the level, others 0.
it('tells what it would be worth to bring the worse ones along', function (array $units, Polarity $polarity, Accumulation $accumulation, array $expected) {
    expect(array_map(gained(...), compared($units, $polarity, $accumulation)->gains))->toBe($expected);
})->with([
    'a total, lower is better: median 8, best quarter from 6' => [
        ['A' => ['26', '10'], 'B' => ['6', '10'], 'C' => ['8', '7'], 'D' => ['14', '10'], 'E' => ['4', '10']], Polarity::Lower, Accumulation::Sum,
        ['median' => [2, '-24', '-168'], 'best-quarter' => [3, '-30', '-210'], 'target' => [3, '-21', '-147']],
    ],
    'a mean, higher is better: the change of the plain mean, of the year by what is left of it' => [
        ['A' => ['90', '95'], 'B' => ['94', '95'], 'C' => ['98', '95'], 'D' => ['96', null]], Polarity::Higher, Accumulation::Mean,
        ['median' => [2, '1.5', '0.875'], 'best-quarter' => [3, '2.375', '1.385416666667'], 'target' => [2, '1.5', '0.875']],
    ],
    'a level: what it would be at the year end' => [
        ['A' => '10', 'B' => '20', 'C' => '60'], Polarity::Lower, Accumulation::Latest,
        ['median' => [1, '-13.333333333333', '-13.333333333333'], 'best-quarter' => [2, '-16.666666666667', '-16.666666666667'], 'target' => null],
    ],
    'a ratio: nothing follows for the year' => [
        ['A' => '10', 'B' => '20'], Polarity::Lower, Accumulation::Recompute,
        ['median' => [1, '-2.5', null], 'best-quarter' => [1, '-3.75', null], 'target' => null],
    ],
    'a band: the nearer limit, each unit its own' => [
        ['A' => ['9', '6', '8'], 'B' => ['5', '6', '8'], 'C' => ['7', '6', '8'], 'D' => ['9', '8', '10']], Polarity::Band, Accumulation::Mean,
        ['median' => null, 'best-quarter' => null, 'target' => [2, '0', '0']],
    ],
    'only tracked' => [['A' => ['9', '1'], 'B' => ['5', '1']], Polarity::None, Accumulation::Sum, ['median' => null, 'best-quarter' => null, 'target' => null]],
    'nobody has a figure' => [['A' => [null, '1']], Polarity::Lower, Accumulation::Sum, ['median' => null, 'best-quarter' => null, 'target' => null]],
    'all equal: nobody is worse' => [['A' => '5', 'B' => '5'], Polarity::Higher, Accumulation::Sum, ['median' => [0, '0', '0'], 'best-quarter' => [0, '0', '0'], 'target' => null]],
    'below zero' => [['A' => '-8', 'B' => '-2', 'C' => '1'], Polarity::Higher, Accumulation::Sum, ['median' => [1, '6', '42'], 'best-quarter' => [2, '9', '63'], 'target' => null]],
]);

it('keeps up a total by what a period of the span was worth, and has nothing to keep up at the year end', function () {
    expect(gained(compared(['A' => '30', 'B' => '10', 'C' => '10'], reported: 5)->gains['median']))->toBe([1, '-20', '-28'])
        ->and(gained(compared(['A' => '30', 'B' => '10', 'C' => '10'], left: 0)->gains['median']))->toBe([1, '-20', null]);
});

it('holds a target against the periods that have one', function () {
    // 30 in three months, 18 of them in the two that have a target of 10 each.
    $figure = new PeerFigure(Exact::of(30), Exact::of(20), null, 3, Exact::of(18));
    $comparison = Comparison::of(['A' => $figure], Polarity::Lower, Accumulation::Sum, 7, 12);

    expect([$comparison->meeting, $comparison->aiming])->toBe([1, 1])->and(gained($comparison->gains['target']))->toBe([0, '0', '0'])
        ->and([$figure->meets(Polarity::Higher), (string) $figure->short(Polarity::Higher), $figure->meets(Polarity::None), $figure->meets(Polarity::Band)])->toBe([false, '2', null, null]);
});

it('has the first and the last in their order, and knows the last from one of equals', function () {
    $comparison = compared(['A' => '4', 'B' => '9', 'C' => null, 'D' => '4', 'E' => '1']);

    expect($comparison->first(3))->toBe(['E', 'A', 'D'])->and($comparison->first(3, true))->toBe(['B', 'A', 'D'])->and($comparison->isLast('B'))->toBeTrue()->and($comparison->isLast('C'))->toBeFalse()
        ->and(compared(['A' => '4', 'B' => '4'])->isLast('B'))->toBeFalse()
        ->and(compared(['A' => '4', 'B' => '5'], Polarity::None)->first(3))->toBe([]);
});

it('says which unit stands out again and again', function () {
    $one = compared(['A' => '1', 'B' => '9', 'C' => '2', 'D' => '3'], Polarity::Lower);
    $two = compared(['A' => '1', 'B' => '2', 'C' => '4', 'D' => '9'], Polarity::Higher);
    $three = compared(['A' => '5', 'B' => '9', 'C' => '2', 'D' => null], Polarity::Lower);

    expect(Recurring::among([$one, $two, $three]))->toEqual((fn () => new self('B', 2, 2, 3))->bindTo(null, Recurring::class)())
        // One that is not measured in the first of them counts as well.
        ->and(Recurring::among([compared(['A' => '1', 'C' => '2', 'D' => '3']), $one, $three])?->unit)->toBe('B')
        ->and(Recurring::among([$one, $two]))->toBeNull()->and(Recurring::among([]))->toBeNull();
});

it('orders by who moved most, for the worse first', function (array $now, array $before, Polarity $polarity, array $expected) {
    expect(array_map(fn (Variance $moved): array => [(string) $moved->difference, $moved->effect?->value], compared($now, $polarity)->moved(peerFigures($before))))->toBe($expected);
})->with([
    'lower is better' => [['A' => '5', 'B' => '9', 'C' => '1', 'D' => '2'], ['A' => '5', 'B' => '4', 'C' => '6', 'D' => null], Polarity::Lower, ['B' => ['5', 'adverse'], 'A' => ['0', 'none'], 'C' => ['-5', 'favourable']]],
    'higher is better' => [['A' => '5', 'B' => '9'], ['A' => '7', 'B' => '4'], Polarity::Higher, ['A' => ['-2', 'adverse'], 'B' => ['5', 'favourable']]],
    'a band, by the distance from it' => [['A' => ['9', '6', '8'], 'B' => ['6', '6', '8']], ['A' => ['8', '6', '8'], 'B' => ['4', '6', '8']], Polarity::Band, ['A' => ['1', 'adverse'], 'B' => ['2', 'favourable']]],
]);

it('ranks figures that are equal only as floats', function () {
    $peers = Peers::of(array_map(Exact::of(...), ['A' => '1.00000000000000002', 'B' => '1.00000000000000001', 'C' => '1.00000000000000002']), Polarity::Lower);

    expect($peers->ranks())->toBe(['A' => 2, 'B' => 1, 'C' => 2]);
});

it('ranks many as it ranks few: by hand, one against each other', function () {
    mt_srand(20261129);
    foreach ([Polarity::Higher, Polarity::Lower] as $polarity) {
        $figures = [];
        for ($unit = 0; $unit < 300; $unit++) {
            $figures["U{$unit}"] = Exact::of((string) (mt_rand(-60, 60) / 4));
        }
        $peers = Peers::of($figures, $polarity);
        $better = fn (Exact $one, Exact $other): bool => $polarity === Polarity::Higher ? $one->toFloat() > $other->toFloat() : $one->toFloat() < $other->toFloat();
        foreach ($peers->ranks() as $unit => $rank) {
            expect($rank)->toBe(1 + count(array_filter($figures, fn (Exact $other): bool => $better($other, $figures[$unit]))));
        }
        expect(array_keys($peers->ranks()))->toBe(array_keys($figures))
            ->and(array_map(fn (int $percent): float => $peers->level($percent)->toFloat(), [0, 25, 50, 75, 90, 100]))->toEqualWithDelta(array_map($peers->quantile(...), [0, 0.25, 0.5, 0.75, 0.9, 1]), 1e-12);
    }
});

// Anscombe, "Graphs in Statistical Analysis", The American Statistician 27 (1973): the first of his four sets, whose
// correlation he gives as 0.816.
it('says whether two go together, and whether chance would do it', function () {
    $x = array_map(floatval(...), ['a' => 10, 'b' => 8, 'c' => 13, 'd' => 9, 'e' => 11, 'f' => 14, 'g' => 6, 'h' => 4, 'i' => 12, 'j' => 7, 'k' => 5]);
    $y = ['a' => 8.04, 'b' => 6.95, 'c' => 7.58, 'd' => 8.81, 'e' => 8.33, 'f' => 9.96, 'g' => 7.24, 'h' => 4.26, 'i' => 10.84, 'j' => 4.82, 'k' => 5.68];
    $all = Association::of($x, $y);
    $few = Association::of(array_slice($x, 0, 4), $y);

    expect($all?->pearson)->toEqualWithDelta(0.816, 5e-4)->and($all?->pairs)->toBe(11)->and($all?->moving)->toBe(Moving::Together)->and($all?->isHardlyChance())->toBeTrue()
        ->and($few?->isHardlyChance())->toBeFalse()->and($all?->isByFew())->toBeFalse()->and(Association::of(['a' => 1.0, 'b' => 2.0, 'c' => 3.0, 'd' => 4.0, 'e' => 100.0], ['a' => 4.0, 'b' => 3.0, 'c' => 2.0, 'd' => 1.0, 'e' => 100.0])?->isByFew())->toBeTrue()->and(Association::of($x, array_fill_keys(array_keys($x), 1.0)))->toBeNull()
        ->and(Association::of(['a' => 1.0, 'b' => 2.0, 'c' => 3.0], ['a' => 2.0, 'b' => 4.0, 'c' => 6.0])?->chance)->toBe(0.0);
});

// The open set `cars` of vega-datasets, by jStat (bin/outside-check cars): 406 cars, some without a figure, many ties.
it('agrees with a general-purpose library on ranks, percentiles and correlations of an open set', function () {
    ['figures' => $figures, 'peers' => $peers, 'pairs' => $pairs] = json_decode((string) file_get_contents(__DIR__.'/../Fixtures/cars.json'), true);
    foreach ($peers as $expected) {
        $comparison = compared(array_map(fn (float|int|null $figure): ?string => $figure === null ? null : (string) $figure, $figures[$expected['kpi']]));
        expect($comparison->ranks)->toBe(array_filter($expected['ranks']))
            ->and($comparison->percentiles)->toEqualWithDelta(array_filter($expected['percentiles'], is_numeric(...)), 1e-6)
            ->and(array_map(fn (int $percent): float => (float) $comparison->peers?->level($percent)->toFloat(), [10, 25, 50, 75, 90]))->toEqualWithDelta($expected['quantiles'], 1e-9)
            ->and($comparison->peers?->mean())->toEqualWithDelta($expected['mean'], 1e-9);
    }
    foreach ($pairs as $expected) {
        [$one, $other] = array_map(fn (string $kpi): array => array_map(floatval(...), array_filter($figures[$kpi], is_numeric(...))), [$expected['one'], $expected['other']]);
        $found = Association::of($one, $other);
        expect($found?->pairs)->toBe($expected['pairs'])->and([$found?->pearson, $found?->spearman])->toEqualWithDelta([$expected['pearson'], $expected['spearman']], 1e-10);
    }
});
