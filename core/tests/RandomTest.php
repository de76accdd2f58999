<?php

declare(strict_types=1);

use Brick\Math\BigRational;
use Brick\Math\RoundingMode;
use Kybernet\Core\Calendar\FinancialYear;
use Kybernet\Core\Calendar\Frequency;
use Kybernet\Core\Calendar\Period;
use Kybernet\Core\Measure\Accumulation;
use Kybernet\Core\Measure\Exact;
use Kybernet\Core\Measure\Formula;
use Kybernet\Core\Measure\FormulaProblem;
use Kybernet\Core\Measure\NoValue;

use function Kybernet\Core\Tests\anyFigure;
use function Kybernet\Core\Tests\month;

/*
 * What must hold of formulas, accumulation and periods whatever they are made of. What is compared with is worked out in
 * another way: by exact fractions, by the calendar of PHP.
 */

beforeEach(fn () => mt_srand(20261128));

/** @return array{string, ?BigRational} a formula over A to D, and what it gives; null where it divides by zero */
function anyFormula(array $figures, int $depth): array
{
    $kind = $depth === 0 ? mt_rand(0, 1) : mt_rand(0, 7);
    if ($kind === 0) {
        $code = ['A', 'B', 'C', 'D'][mt_rand(0, 3)];

        return [$code, BigRational::of($figures[$code])];
    }
    if ($kind === 1) {
        $number = (string) (mt_rand(0, 5000) / 100);

        return [$number, BigRational::of($number)];
    }
    [$left, $one] = anyFormula($figures, $depth - 1);
    [$right, $other] = anyFormula($figures, $depth - 1);
    if ($one === null || $other === null) {
        return ["({$left} + {$right})", null];
    }

    return match ($kind) {
        2 => ["({$left} + {$right})", $one->plus($other)],
        3 => ["({$left} - {$right})", $one->minus($other)],
        4 => ["({$left} * {$right})", $one->multipliedBy($other)],
        5 => ["({$left} / {$right})", $other->isZero() ? null : BigRational::of($one->dividedBy($other)->toScale(12, RoundingMode::HALF_UP))],
        6 => ["max({$left}, {$right})", $one->isLessThan($other) ? $other : $one],
        default => ["-abs({$left})", $one->abs()->negated()],
    };
}

it('calculates what exact fractions give', function () {
    $compared = 0;
    for ($round = 0; $round < 400; $round++) {
        $figures = array_combine(['A', 'B', 'C', 'D'], array_map(fn (): string => anyFigure(), range(1, 4)));
        [$text, $value] = anyFormula($figures, 4);
        try {
            $formula = Formula::parse($text);
        } catch (FormulaProblem $problem) {
            expect($problem->getMessage())->toBe('The formula names no KPI.');

            continue;
        }
        try {
            $given = $formula->evaluate(array_map(Exact::of(...), $figures));
        } catch (NoValue) {
            expect($value)->toBeNull("{$text} has a value");

            continue;
        }
        expect($value)->not->toBeNull("{$text} divides by zero");
        $distance = BigRational::of((string) $given)->minus($value)->abs();
        // A quotient has twelve decimals, and so has what is written; nothing else is rounded.
        expect($distance->isLessThanOrEqualTo(BigRational::of(1)->dividedBy(10 ** 12)))->toBeTrue("{$text}: {$given} and not {$value->toScale(12, RoundingMode::HALF_UP)}");
        $compared++;
    }
    expect($compared)->toBeGreaterThan(250);
});

it('tells of any text either what it says or where it is wrong, and nothing else', function () {
    $signs = ['A', 'B-2', '"SYS-IN"', 'max', 'orzero', 'below', '(', ')', '+', '-', '*', '/', ',', '1', '2.5', '1e3', ' ', '.', "'x'", '^', 'true', '×', '{', '?', '"'];
    $read = $refused = 0;
    for ($round = 0; $round < 3000; $round++) {
        $text = implode('', array_map(fn (): string => $signs[mt_rand(0, count($signs) - 1)], range(1, mt_rand(1, 9))));
        try {
            $formula = Formula::parse($text);
            foreach ($formula->operands as $operand) {
                $place = $formula->placeOf($operand->code);
                expect(ltrim(mb_substr($text, $place - 1, mb_strlen($operand->code) + 1), '"\''))->toStartWith($operand->code);
            }
            $read++;
        } catch (FormulaProblem $problem) {
            expect($problem->position === null || ($problem->position >= 1 && $problem->position <= mb_strlen($text) + 1))->toBeTrue("{$text}: {$problem->position}");
            $refused++;
        }
    }
    expect($read)->toBeGreaterThan(100)->and($refused)->toBeGreaterThan(1000);
});

it('gathers without regard to order, between the least and the most, and moves with what all are moved by', function (Accumulation $rule) {
    for ($round = 0; $round < 80; $round++) {
        $figures = array_map(fn (): Exact => Exact::of(anyFigure()), range(1, mt_rand(1, 12)));
        $by = Exact::of(anyFigure());
        $gathered = $rule->combine($figures);
        $moved = $rule->combine(array_map(fn (Exact $figure): Exact => $figure->plus($by), $figures));
        $shuffled = $figures;
        shuffle($shuffled);

        expect($moved->compareTo($gathered->plus($rule === Accumulation::Sum ? $by->times(count($figures)) : $by)))->toBe(0);
        if ($rule !== Accumulation::Latest) {
            expect($rule->combine($shuffled)->compareTo($gathered))->toBe(0);
        }
        if ($rule !== Accumulation::Sum) {
            expect($gathered->compareTo(Accumulation::Minimum->combine($figures)))->toBeGreaterThanOrEqual(0)
                ->and($gathered->compareTo(Accumulation::Maximum->combine($figures)))->toBeLessThanOrEqual(0);
        }
    }
})->with([Accumulation::Sum, Accumulation::Mean, Accumulation::Latest, Accumulation::Maximum, Accumulation::Minimum]);

it('counts periods of every frequency one by one, and writes them as it reads them', function (Frequency $frequency, string $first) {
    $period = Period::parse($first, $frequency);
    for ($step = 0; $step < 700; $step++) {
        $next = $period->plus(1);
        expect(Period::parse($period->key(), $frequency)->compareTo($period))->toBe(0)
            ->and(Frequency::ofKey($period->key()))->toBe($frequency)
            ->and($next->compareTo($period))->toBe(1)
            ->and($next->previous()->key())->toBe($period->key())
            ->and($period->plus(-$step)->plus($step)->key())->toBe($period->key());
        $period = $next;
    }
})->with([
    [Frequency::Week, '2019-W50'], [Frequency::Month, '1995-11'], [Frequency::Quarter, 'FY1990-Q3'],
]);

it('numbers weeks as the calendar of PHP does (ISO 8601)', function () {
    $week = Period::parse('1999-W01', Frequency::Week);
    for ($day = new DateTimeImmutable('1999-01-04'); (int) $day->format('Y') < 2061; $day = $day->modify('+7 days')) {
        expect($week->key())->toBe($day->format('o-\WW'));
        $week = $week->plus(1);
    }
});

it('has every month in one year and one quarter, and every week in one month, whenever the year begins', function (int $start) {
    $year = new FinancialYear($start);
    $weeks = [];
    for ($month = month('2024-01'); $month->compareTo(month('2031-12')) <= 0; $month = $month->plus(1)) {
        $months = $year->months($month);
        expect($months)->toHaveCount(12)
            ->and($months[0]->monthOfYear())->toBe($start)
            ->and(array_map(fn (Period $each): string => $each->key(), $months))->toContain($month->key())
            ->and($year->start($month)->key())->toBe($months[0]->key())
            ->and($year->of($month)->key())->toBe($year->of($months[11])->key())
            // A quarter begins a multiple of three months after the year does.
            ->and(($year->quarterStart($month)->monthOfYear() - $start + 12) % 3)->toBe(0)
            ->and($year->quarterStart($month)->compareTo($month))->toBeLessThanOrEqual(0)
            ->and($year->quarterStart($month)->plus(2)->compareTo($month))->toBeGreaterThanOrEqual(0);
        foreach ($year->endingIn(Frequency::Week, $month, $month) as $week) {
            $weeks[] = $week->key();
            expect($year->endMonth($week)->key())->toBe($month->key());
        }
    }
    $all = array_map(fn (Period $week): string => $week->key(), Period::parse($weeks[0], Frequency::Week)->to(Period::parse($weeks[count($weeks) - 1], Frequency::Week)));
    expect($weeks)->toBe($all);
})->with(range(1, 12));
