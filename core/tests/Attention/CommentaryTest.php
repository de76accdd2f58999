<?php

declare(strict_types=1);

use Kybernet\Core\Attention\Agreed;
use Kybernet\Core\Attention\Commentary;
use Kybernet\Core\Attention\LiveFigure;
use Kybernet\Core\Attention\ReasonCode;
use Kybernet\Core\Attention\Told;
use Kybernet\Core\Status\Status;

/** @param  array<string, mixed>  $more */
function told(string $code, Status $status, array $more = []): Told
{
    return new Told(...[...['kpi' => $code, 'name' => "The {$code}", 'unit' => '', 'unitName' => '', 'status' => $status, 'reasons' => []], ...$more]);
}

it('drafts what a month was, in the words of its notes', function (array $ranked, array $expected) {
    expect(Commentary::draft($ranked))->toBe($expected)->and(Commentary::draft($ranked))->toBe($expected);
})->with([
    'nothing to say' => [[told('A', Status::Green), told('B', Status::NotJudged)], ['Everything that is judged is on course, and everything is in.']],
    'off course, with why, what is expected and what is done' => [
        [told('LEAK', Status::Red, ['run' => 10, 'why' => 'Two new bursts on the trunk main', 'outlook' => 'back under 60 by November.', 'actions' => [new Agreed('survey, joint by joint', 'Tom Fairley', '18 December', false), new Agreed('Clamps!', 'East side crew', '30 September', true)]])],
        ['The LEAK is off course at {LEAK} ({LEAK to target}), for 10 periods in a row: Two new bursts on the trunk main. Back under 60 by November. Survey, joint by joint. Tom Fairley, by 18 December. Clamps! East side crew, was due on 30 September.'],
    ],
    'drifting in another unit, and nobody said why' => [
        [told('Z', Status::Amber, ['unit' => 'NORTH', 'unitName' => 'The north', 'run' => 2])],
        ['The Z in The north is drifting at {Z in NORTH} ({Z in NORTH to target}); no reason is given yet.'],
    ],
    'what got worse, recovered, is heading off, is late' => [
        [
            told('A', Status::Green, ['reasons' => [ReasonCode::Worsened]]),
            told('B', Status::Green, ['reasons' => [ReasonCode::ProjectedMiss]]),
            told('C', Status::NoData, ['reasons' => [ReasonCode::Missing]]),
            told('D', Status::NoData, ['reasons' => [ReasonCode::Missing], 'unit' => 'NORTH', 'unitName' => 'North']),
            told('E', Status::Green, ['isRecovered' => true]),
            told('F', Status::Green, ['isRecovered' => true]),
        ],
        [
            'Worse than before, and still on course: The A ({A}).', 'On course again: The E ({E}) and The F ({F}).', 'Heading off course by the year end: The B ({B year end} expected).',
            'Not reported yet: The C and The D in North.',
        ],
    ],
    'braces of people stay braces' => [
        [told('A', Status::Red, ['name' => 'A {curly} one', 'why' => 'See {LEAK}'])],
        ['A {{curly} one is off course at {A} ({A to target}): See {{LEAK}.'],
    ],
]);

it('tells five one by one, and how many more there are', function () {
    $draft = Commentary::draft([...array_map(fn (int $each): Told => told("K{$each}", Status::Red), range(1, 7)), ...array_map(fn (int $each): Told => told("L{$each}", Status::NoData, ['reasons' => [ReasonCode::Missing]]), range(1, 8))]);

    expect($draft)->toHaveCount(7)->and($draft[4])->toStartWith('The K5 is off course')->and($draft[5])->toBe('2 more are off course or drifting.')
        ->and($draft[6])->toBe('Not reported yet: The L1, The L2, The L3, The L4, The L5 and 3 more.')
        ->and(Commentary::draft(array_map(fn (int $each): Told => told("K{$each}", Status::Red), range(1, 6)))[5])->toBe('One more is off course or drifting.');
});

it('finds live figures in a text, and leaves other braces alone', function (string $text, array $expected) {
    expect(array_map(fn (string|LiveFigure $part): array|string => is_string($part) ? $part : [$part->kpi, $part->unit, $part->what], LiveFigure::in($text)))->toBe($expected);
})->with([
    'none' => ['No figure.', ['No figure.']],
    'nothing' => ['', []],
    'one' => ['{LEAK}', [['LEAK', '', '']]],
    'each of what there is' => ['{A to target}, {A to last year}, {A year end}', [['A', '', 'to target'], ', ', ['A', '', 'to last year'], ', ', ['A', '', 'year end']]],
    'of another unit' => ['At {Z-LEAK in Z-NORTH to target}.', ['At ', ['Z-LEAK', 'Z-NORTH', 'to target'], '.']],
    'braces' => ['{{LEAK} {not one} { LEAK } {}', ['{LEAK} {not one} { LEAK } {}']],
    'a figure behind braces' => ['{{{A}', ['{', ['A', '', '']]],
]);

it('writes a live figure as it is read', function (string $text) {
    expect(implode('', array_map(strval(...), LiveFigure::in($text))))->toBe($text);
})->with(['{LEAK}', '{Z-LEAK in Z-NORTH year end}', 'At {A to last year}, no more.']);
