<?php

declare(strict_types=1);

use Kybernet\Core\Measure\Exact;
use Kybernet\Core\Measure\Formula;
use Kybernet\Core\Measure\FormulaProblem;
use Kybernet\Core\Measure\OperandOf;

use function Kybernet\Core\Tests\assessed;
use function Kybernet\Core\Tests\book;
use function Kybernet\Core\Tests\kpi;
use function Kybernet\Core\Tests\problems;
use function Kybernet\Core\Tests\rows;

it('calculates on exact decimals', function (string $formula, array $figures, string $value) {
    expect((string) Formula::parse($formula)->evaluate(array_map(Exact::of(...), $figures)))->toBe($value);
})->with([
    'precedence' => ['A + B * 2 - C / 4', ['A' => '1', 'B' => '2.5', 'C' => '2'], '5.5'],
    'parentheses and signs' => ['-(A - B) * +C', ['A' => '1', 'B' => '3', 'C' => '2'], '4'],
    'what floats cannot say' => ['A + B', ['A' => '0.1', 'B' => '0.2'], '0.3'],
    'long numbers keep their digits' => ['A * 12345678901234567.123456789', ['A' => '1'], '12345678901234567.123456789'],
    'each division is rounded to 12 decimals' => ['A / 3 * 3', ['A' => '1'], '0.999999999999'],
    '… half away from zero' => ['A / 8000000000000', ['A' => '-100'], '-0.000000000013'],
    'functions' => ['min(A, B) + max(A, B, 9) + abs(-A) + sum(A, B) + avg(A, B, 1)', ['A' => '4', 'B' => '1'], '21'],
    'a mean is a division' => ['avg(A, 1, 1)', ['A' => '2'], '1.333333333333'],
    'a code that is no plain word' => ['"B-2.x" / A', ['A' => '2', 'B-2.x' => '3'], '1.5'],
    'printed signs' => ["A \u{2212} B \u{00D7} 2 \u{00F7} 4", ['A' => '3', 'B' => '2'], '2'],
]);

it('names the KPIs it needs', function () {
    $operands = Formula::parse('A / orzero(B) + below(C) + orzero(A)')->operands;

    expect(array_keys($operands))->toBe(['A', 'B', 'below(C)'])
        ->and($operands['A']->orZero)->toBeFalse()->and($operands['B']->orZero)->toBeTrue()->and($operands['below(C)']->of)->toBe(OperandOf::Below);
});

it('says what it cannot read, and where', function (string $formula, ?int $position, string $words) {
    try {
        Formula::parse($formula);
        test()->fail('It was read.');
    } catch (FormulaProblem $problem) {
        expect($problem->getMessage())->toContain($words)->and($problem->position)->toBe($position);
    }
})->with([
    'a comparison' => ['A > B', 3, "'>' is not understood"],
    'a power' => ['A ** 2', 3, "'**' is not understood"],
    'another function' => ['A + sqrt(B)', 5, 'sqrt'],
    'a constant' => ['A + true', 5, "'true' is not understood"],
    'an attribute' => ['A.b', 2, "'.' is not understood"],
    'an array' => ['[A]', 1, "'[' is not understood"],
    'a short form of a number' => ['A * 1e5', 5, "'1e5' is not a number"],
    'a comment' => ['A /* so */', 3, 'no comments'],
    'nothing after a sign' => ['A +', 4, 'ends too early'],
    'a bracket too few' => ['(A + B', 1, 'Unclosed'],
    'two in a row' => ['A B', 3, "'B' is not expected"],
    'a character from elsewhere' => ['A + €', 5, 'not'],
    'orzero of more than a code' => ['orzero(A + B)', 1, 'one KPI code'],
    'a call deep inside' => ['1 + max(A, abs(A, B))', 12, 'one argument'],
    'no KPI' => ['1 + 2', null, 'names no KPI'],
    'blank' => [' ', 2, 'ends too early'],
    'text in quotes' => ['A + "x y"', 5, "'x y' is not a KPI code"],
]);

/** RATIO = A ÷ B × 100, with actuals and a rule of levels. */
function ratioBook(array $a, array $b, array $ratio = []): array
{
    return book([
        'kpis' => [
            kpi('A', ['accumulation' => 'sum', 'rules' => []]),
            kpi('B', ['accumulation' => 'sum', 'rules' => []]),
            kpi('RATIO', ['kind' => 'formula', 'measure' => '%', 'accumulation' => 'recompute', 'formula' => 'A / B * 100', ...$ratio]),
        ],
        'readings' => [...rows('A', '2026-06', $a), ...rows('B', '2026-06', $b)],
    ]);
}

it('gathers a ratio as a ratio of sums, over the periods in which every operand is there', function () {
    $span = assessed(ratioBook(['90', '10', '5'], ['100', '20', null]))['assessments']['RATIO ORG']['spans'];

    expect($span['yearToDate'])->toMatchArray(['reported' => 2, 'missing' => ['2026-04', '2026-05', '2026-08'], 'actual' => '83.3333333333', 'status' => 'amber'])
        ->and($span['month'])->toMatchArray(['reported' => 0, 'actual' => null, 'status' => 'no-data', 'reason' => 'No value: B has no figure for August 2026.']);
});

it('gives no value on a zero divisor, says so, and counts the period in the ratio of sums all the same', function () {
    $span = assessed(ratioBook(['90', '4', '5'], ['100', '6', '0']))['assessments']['RATIO ORG']['spans'];

    expect($span['month'])->toMatchArray(['reported' => 1, 'actual' => null, 'status' => 'no-data', 'reason' => 'No value: the formula divides by zero.'])
        ->and($span['yearToDate'])->toMatchArray(['reported' => 3, 'actual' => '93.3962264151', 'status' => 'green']);
});

it('leaves such a period out where the values themselves are gathered', function () {
    $span = assessed(ratioBook(['90', '4', '5'], ['100', '8', '0'], ['accumulation' => 'mean']))['assessments']['RATIO ORG']['spans'];

    expect($span['yearToDate'])->toMatchArray(['reported' => 2, 'actual' => '70'])
        ->and($span['month'])->toMatchArray(['reported' => 0, 'reason' => 'No value: the formula divides by zero.']);
});

it('counts a missing operand in orzero() as 0 where another one is there', function (array $a, array $b, ?string $actual, int $reported) {
    $span = assessed(ratioBook($a, $b, ['formula' => 'orzero(A) + orzero(B)']))['assessments']['RATIO ORG']['spans']['quarter'];

    expect($span)->toMatchArray(['actual' => $actual, 'reported' => $reported]);
})->with([
    [['1', null, '3'], ['10', '20', null], '23', 2],
    [['1', null, null], ['10', null, null], null, 0],
]);

it('gives a formula no figure outside the months in which it is measured', function () {
    $book = ratioBook(['90', '80', '70'], ['100', '100', '100'], ['units' => [['unit' => 'ORG', 'from' => '2026-07']]]);

    expect(assessed($book)['assessments']['RATIO ORG']['spans']['yearToDate'])->toMatchArray(['expected' => 2, 'actual' => '75']);
});

it('works formulas out of formulas', function () {
    $book = ratioBook(['90', '4', '5'], ['100', '6', '0']);
    $book['kpis'][] = kpi('TWICE', ['kind' => 'formula', 'accumulation' => 'recompute', 'formula' => 'RATIO * 2']);

    expect(assessed($book)['assessments']['TWICE ORG']['spans']['yearToDate']['actual'])->toBe('186.7924528302');
});

it('refuses formulas that lead nowhere', function (string $member, mixed $value, array $lines) {
    $book = ratioBook([], []);
    $book['kpis'][2][$member] = $value;
    $book['kpis'][] = kpi('AGAIN', ['kind' => 'formula', 'formula' => 'RATIO + A']);
    $book['kpis'][] = ['code' => 'MOOD', 'name' => 'Mood', 'kind' => 'judged', 'units' => [['unit' => 'ORG']]];

    expect(problems($book))->toBe($lines);
})->with([
    'a cycle, with its path' => ['formula', 'A + AGAIN', ['/kpis/2/formula cycle A formula cannot lead back to itself: RATIO > AGAIN > RATIO.']],
    'itself' => ['formula', 'RATIO + 1', ['/kpis/2/formula cycle A formula cannot lead back to itself: RATIO > RATIO.']],
    'a KPI that there is not' => ['formula', 'A / C', ["/kpis/2/formula unknown-kpi There is no KPI 'C'."]],
    'a KPI without a number' => ['formula', 'A / MOOD', ["/kpis/2/formula operand 'MOOD' is judged and has no number."]],
    'another frequency' => ['frequency', 'week', ["/kpis/2/formula operand 'A' is measured by the month, not by the week.", "/kpis/3/formula operand 'RATIO' is measured by the week, not by the month."]],
    'a KPI that is not gathered' => ['formula', 'below(A)', ["/kpis/2/formula operand 'A' does not say how it is gathered over units."]],
    'unreadable' => ['formula', 'A // B', ["/kpis/2/formula formula '/' is not expected here. (character 4)"]],
    'none' => ['formula', null, ['/kpis/2 missing-member The formula is missing.']],
]);

it('looks back as far as its operands go', function () {
    $book = ratioBook([null, '90', '95'], ['100', '100', '100'], ['formula' => 'A / orzero(B) * 100']);
    $assessed = assessed($book)['assessments']['RATIO ORG'];

    expect($assessed['streak'])->toBe(['status' => 'green', 'length' => 2])
        ->and($assessed['spans']['month'])->toMatchArray(['step' => '5', 'stepPercent' => '5.555555555556']);
});

it('has a trend and control limits of its own values', function () {
    $a = array_map(fn (int $month): string => (string) (90 + $month), range(0, 11));
    $book = ratioBook([], []);
    $book['readings'] = [...rows('A', '2025-09', $a), ...rows('B', '2025-09', array_fill(0, 12, '100'))];
    $assessed = assessed($book)['assessments']['RATIO ORG'];

    expect($assessed['trend'])->toMatchArray(['n' => 12, 'direction' => 'rising', 'meaning' => 'improving', 'p' => 0])
        ->and($assessed['trend']['slope'])->toEqualWithDelta(1, 1e-9)
        ->and($assessed['control']['centre'])->toEqualWithDelta(95, 1e-9);
});
