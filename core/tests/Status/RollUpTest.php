<?php

declare(strict_types=1);

use Brick\Math\BigDecimal;
use Kybernet\Core\Attention\Past;
use Kybernet\Core\Attention\Streak;
use Kybernet\Core\Calendar\Period;
use Kybernet\Core\Status\Counts;
use Kybernet\Core\Status\Movement;
use Kybernet\Core\Status\RollUp;
use Kybernet\Core\Status\RollUpMethod;
use Kybernet\Core\Status\Status;
use Kybernet\Core\Status\Tally;
use Kybernet\Core\Status\UnitTree;

use function Kybernet\Core\Tests\month;

const G = Status::Green;
const A = Status::Amber;
const R = Status::Red;
const N = Status::NotJudged;
const D = Status::NoData;

function weighed(array $members): Tally
{
    return Tally::of(array_map(fn (array $member): array => [$member[0], BigDecimal::of($member[1])], $members));
}

/** @param  list<Status>  $latestFirst */
function past(array $latestFirst): Past
{
    $first = month('2026-08')->plus(1 - count($latestFirst));

    return new Past(month('2026-08'), $first->key(), fn (Period $period): Status => $latestFirst[month('2026-08')->ordinal - $period->ordinal]);
}

it('rolls statuses up by weight', function (array $members, Status $status, ?float $score, ?float $coverage) {
    $rollUp = RollUp::of(RollUpMethod::weighted(), weighed($members));

    expect($rollUp->status)->toBe($status)->and($rollUp->score)->toEqualWithDelta($score, 1e-12)->and($rollUp->coverage)->toEqualWithDelta($coverage, 1e-12);
})->with([
    'the green cut exactly' => [[[G, 1.0], [A, 1.0]], G, 1.5, 1.0],
    'just below it' => [[[G, 1.0], [A, 1.01]], A, 3.01 / 2.01, 1.0],
    'the amber cut exactly' => [[[A, 1.0], [R, 1.0]], A, 0.5, 1.0],
    'weights count' => [[[G, 1.0], [R, 4.0]], R, 0.4, 1.0],
    'weight 0 leaves out' => [[[G, 1.0], [R, 0.0]], G, 2.0, 1.0],
    'not judged carries no score and no coverage' => [[[G, 1.0], [N, 9.0]], G, 2.0, 1.0],
    'half covered is enough' => [[[G, 1.0], [D, 1.0]], G, 2.0, 0.5],
    'less is not' => [[[G, 1.0], [D, 1.01]], D, 2.0, 100 / 201],
    'nothing reported' => [[[D, 1.0]], D, null, 0.0],
    'nothing to judge' => [[[N, 1.0]], N, null, null],
    'nothing at all' => [[], N, null, null],
]);

it('rolls statuses up by the worst, or by shares of the judged weight', function (RollUpMethod $method, array $members, Status $status) {
    expect(RollUp::of($method, weighed($members))->status)->toBe($status);
})->with([
    'worst: one red' => [RollUpMethod::worst(), [[G, '9'], [A, '1'], [R, '0.01']], R],
    'worst: one amber' => [RollUpMethod::worst(), [[G, '9'], [A, '1'], [N, '1']], A],
    'worst: none' => [RollUpMethod::worst(), [[G, '9'], [R, '0']], G],
    'share: exactly a quarter red is not red' => [RollUpMethod::share(), [[G, '3'], [R, '1']], A],
    'share: more is' => [RollUpMethod::share(), [[G, '2.99'], [R, '1']], R],
    'share: exactly three quarters green' => [RollUpMethod::share(), [[G, '3'], [A, '1']], G],
    'share: less' => [RollUpMethod::share(), [[G, '2.99'], [A, '1']], A],
    'share: green enough, but one is red' => [RollUpMethod::share(), [[G, '99'], [R, '1']], A],
    'share: of what is judged' => [RollUpMethod::share(), [[G, '3'], [A, '1'], [D, '2'], [N, '9']], G],
    'share: cuts of its own' => [RollUpMethod::share('10', '50'), [[G, '5'], [A, '5']], G],
    'share: a red cut of its own' => [RollUpMethod::share('10', '50'), [[G, '8'], [R, '1']], R],
    'weighted: cuts of its own' => [RollUpMethod::weighted('1.8', '1'), [[G, '1'], [A, '1']], A],
    'covered too little, whatever the method' => [RollUpMethod::worst(), [[R, '1'], [D, '2']], D],
]);

it('refuses cuts out of order', fn () => RollUpMethod::weighted('0.5', '0.6'))->throws(InvalidArgumentException::class, 'The cut for drifting must be 0.5 or lower.');

it('rolls units up into their parents and counts KPIs at any depth', function () {
    $tree = new UnitTree([
        1 => ['parent' => null, 'weight' => BigDecimal::of(1)],
        2 => ['parent' => 1, 'weight' => BigDecimal::of(3)],
        3 => ['parent' => 1, 'weight' => BigDecimal::of(1)],
        4 => ['parent' => 2, 'weight' => BigDecimal::of(1)],
        5 => ['parent' => 1, 'weight' => BigDecimal::of(5)],
    ]);
    $rollUps = $tree->rollUp(1, array_map(weighed(...), [1 => [[G, '1']], 2 => [[A, '1']], 3 => [[R, '1'], [D, '1']], 4 => [[R, '1']], 5 => [[N, '1']]]));

    expect($rollUps[2]->status)->toBe(A)
        ->and($rollUps[5]->status)->toBe(N)
        // its own green (2 × 1), unit 2 amber (1 × 3), unit 3 red (0 × 1); unit 5 is left out
        ->and($rollUps[1]->score)->toBe(1.0)
        ->and($rollUps[1]->counts)->toEqual(Counts::of([G, A, R, D, R, N]))
        ->and($rollUps[1]->counts->judged())->toBe(4)
        ->and($tree->below(2))->toBe([2, 4]);
});

it('takes units for alike only when their members, weights and methods are', function () {
    $units = [0 => ['parent' => null, 'weight' => BigDecimal::one()]];
    $own = [];
    $alone = [];
    mt_srand(1126);
    foreach (range(1, 300) as $id) {
        $method = [RollUpMethod::weighted(), RollUpMethod::weighted('1.6'), RollUpMethod::worst(), RollUpMethod::share()][mt_rand(0, 3)];
        $members = weighed(array_map(fn (): array => [Status::cases()[mt_rand(0, 4)], ['1', '1.0', '2'][mt_rand(0, 2)]], range(1, mt_rand(1, 3))));
        $units[$id] = ['parent' => 0, 'weight' => BigDecimal::one(), 'method' => $method];
        $own[$id] = $members;
        $alone[$id] = RollUp::of($method, $members);
    }
    $rolled = (new UnitTree($units))->rollUp(0, $own);
    unset($rolled[0]);
    ksort($rolled);

    expect($rolled)->toEqual($alone);
});

it('counts what is alike at once', function () {
    $one = weighed([[G, '1'], [G, '1'], [G, '1'], [R, '0.5']]);
    $other = new Tally;
    $other->add(R, BigDecimal::of('0.5'));
    $other->add(G, BigDecimal::of('1'), 3);

    expect($other->key())->toBe($one->key())->and((string) $other->weight(G))->toBe('3')->and($other->counts())->toEqual($one->counts());
});

it('tells what moved', function (Status $before, Status $now, Movement $movement) {
    expect(Movement::between($before, $now))->toBe($movement);
})->with([
    [G, A, Movement::Worse], [A, R, Movement::Worse], [R, A, Movement::Better], [R, G, Movement::Recovered],
    [A, G, Movement::Recovered], [A, A, Movement::None], [D, R, Movement::None], [G, N, Movement::None],
]);

it('counts a streak over gaps', function (array $latestFirst, ?Status $status, ?int $length) {
    $streak = Streak::of(past($latestFirst));

    expect($streak?->status)->toBe($status)->and($streak?->length)->toBe($length);
})->with([
    [[R, R, R, A, R], R, 3],
    [[D, R, N, R, G], R, 2],
    [[D, N], null, null],
]);
