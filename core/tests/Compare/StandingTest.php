<?php

declare(strict_types=1);

use Kybernet\Core\Calendar\Span;
use Kybernet\Core\Compare\LikeForLike;
use Kybernet\Core\Compare\Standing;
use Kybernet\Core\Measure\Accumulation;
use Kybernet\Core\Measure\Definition;
use Kybernet\Core\Measure\Measurement;
use Kybernet\Core\Measure\Series;
use Kybernet\Core\Measure\SetTargets;
use Kybernet\Core\Measure\TargetLine;
use Kybernet\Core\Status\Polarity;

use function Kybernet\Core\Tests\measured;
use function Kybernet\Core\Tests\month;
use function Kybernet\Core\Tests\scorecard;

/**
 * @param  array<string, array{string|null, string|null}>  $units  figure and target of a month
 * @return array<string, LikeForLike>
 */
function reported(array $units, Polarity $polarity): array
{
    return array_map(fn (array $unit): LikeForLike => scorecard()->assess(measured(
        $polarity,
        Accumulation::Mean,
        [],
        array_filter(['2026-08' => $unit[0]], is_string(...)),
        array_filter(['2026-08' => $unit[1]], is_string(...)),
    ), month('2026-08'), Span::Month)->figures, $units);
}

it('tells where a unit lies among its peers', function (Polarity $polarity, array $units, array $expected) {
    $standing = Standing::of('A', reported($units, $polarity), $polarity);

    expect([$standing?->rank, $standing?->ranks, $standing?->inBestTenth, $standing?->inWorstTenth, $standing?->quartiles, $standing?->meeting, $standing?->aiming])->toEqual($expected);
})->with([
    'lower is better' => [Polarity::Lower, ['A' => ['80', '60'], 'B' => ['10', '60'], 'C' => ['60', '60'], 'D' => ['20', null]], [4, ['A' => 4, 'B' => 1, 'C' => 3, 'D' => 2], false, true, [17.5, 40, 65], 2, 3]],
    'higher is better, with a tie' => [Polarity::Higher, ['A' => ['30', null], 'B' => ['30', null], 'C' => ['10', null]], [1, ['A' => 1, 'B' => 1, 'C' => 3], true, false, [20, 30, 30], 0, 0]],
    'a unit without a figure is not counted' => [Polarity::Higher, ['A' => ['1', '1'], 'B' => ['2', '9'], 'C' => [null, '1'], 'D' => ['3', '3']], [3, ['A' => 3, 'B' => 2, 'D' => 1], false, true, [1.5, 2, 2.5], 2, 3]],
    'all equal' => [Polarity::Higher, ['A' => ['5', null], 'B' => ['5', null], 'C' => ['5', null]], [1, ['A' => 1, 'B' => 1, 'C' => 1], false, false, [5, 5, 5], 0, 0]],
]);

it('knows units whose codes are digits', function () {
    $standing = Standing::of('101', reported(['101' => ['80', null], '102' => ['10', null], '103' => ['60', null]], Polarity::Lower), Polarity::Lower);

    expect([$standing?->rank, $standing?->inWorstTenth, $standing?->inBestTenth])->toBe([3, true, false]);
});

it('says nothing where nothing can be said', function (Polarity $polarity, array $units) {
    expect(Standing::of('A', reported($units, $polarity), $polarity))->toBeNull();
})->with([
    'the unit has no figure' => [Polarity::Higher, ['A' => [null, null], 'B' => ['1', null], 'C' => ['1', null], 'D' => ['1', null]]],
    'two units' => [Polarity::Higher, ['A' => ['1', null], 'B' => ['2', null], 'C' => [null, null]]],
    'only tracked' => [Polarity::None, ['A' => ['1', null], 'B' => ['2', null], 'C' => ['3', null]]],
    'a band that nobody has' => [Polarity::Band, ['A' => ['1', null], 'B' => ['2', null], 'C' => ['3', null]]],
]);

it('ranks by the distance from a band, each unit from its own', function () {
    $span = function (string $actual, string $low, string $high): LikeForLike {
        $series = fn (string $figure): Series => new Series(['2026-08' => $figure]);
        $targets = SetTargets::band(TargetLine::of($series($low)), TargetLine::of($series($high)));

        return LikeForLike::gather(new Measurement(new Definition('pH', 1, Polarity::Band, Accumulation::Mean, []), $series($actual), $targets), [month('2026-08')]);
    };
    $standing = Standing::of('A', ['A' => $span('9', '6', '8'), 'B' => $span('5.5', '6', '8'), 'C' => $span('7', '6', '8'), 'D' => $span('9', '8', '10')], Polarity::Band);

    expect($standing?->ranks)->toBe(['A' => 4, 'B' => 3, 'C' => 1, 'D' => 1])->and($standing?->quartiles)->toBeNull()->and([$standing?->meeting, $standing?->aiming])->toBe([2, 4]);
});
