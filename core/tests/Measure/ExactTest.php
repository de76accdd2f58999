<?php

declare(strict_types=1);

use Brick\Math\BigDecimal;
use Brick\Math\BigRational;
use Brick\Math\RoundingMode;
use Kybernet\Core\Measure\Exact;
use Kybernet\Core\Measure\Series;

use function Kybernet\Core\Tests\anyFigure;
use function Kybernet\Core\Tests\month;
use function Kybernet\Core\Tests\monthly;

beforeEach(fn () => mt_srand(20261123));

it('adds long and short figures exactly, whichever way it adds them', function () {
    for ($round = 0; $round < 400; $round++) {
        $figures = array_map(fn (): string => anyFigure(), range(1, mt_rand(1, 12)));
        $sum = array_reduce($figures, fn (BigDecimal $sum, string $figure): BigDecimal => $sum->plus($figure), BigDecimal::zero());
        $total = Exact::total((new Series(monthly('2026-01', $figures)))->known(month('2026-01')->to(month('2026-12'))));

        expect($total->toDecimal()->isEqualTo($sum))->toBeTrue(implode(' + ', $figures)." is {$sum}, not {$total}");
    }
});

// The reference is the rational arithmetic of brick/math, a general-purpose library.
it('calculates as rational numbers do', function () {
    for ($round = 0; $round < 300; $round++) {
        [$a, $b] = [anyFigure(), anyFigure()];
        [$m, $n] = [mt_rand(1, 12), mt_rand(1, 12)];
        $one = Exact::mean(Exact::of($a), $m);
        $other = Exact::mean(Exact::of($b), $n);
        $first = BigRational::of($a)->dividedBy($m);
        $second = BigRational::of($b)->dividedBy($n);
        $given = fn (BigRational $exact): string => (string) $exact->getNumerator()->toBigDecimal()
            ->dividedBy($exact->getDenominator(), 12, RoundingMode::HALF_UP)->stripTrailingZeros();

        expect((string) $one->minus($other))->toBe($given($first->minus($second)))
            ->and((string) $one->plus($other))->toBe($given($first->plus($second)))
            ->and($one->compareTo($other))->toBe($first->compareTo($second))
            ->and((string) $one->times($other))->toBe($given($first->multipliedBy($second)))
            ->and((string) $one->abs())->toBe($given($first->abs()))
            ->and($one->toFloat())->toEqualWithDelta($first->toFloat(), max(1.0, abs($first->toFloat())) * 1e-12)
            ->and($one->sign())->toBe($first->getSign());
        if (! $other->isZero()) {
            expect((string) $one->dividedBy($other))->toBe($given($first->dividedBy($second)));
        }
    }
});

it('calculates on from what it has calculated, past the ends of machine integers', function () {
    // Some figures lie at those ends, most begin small and grow as they are multiplied.
    $ends = ['9223372036854775807', '-9223372036854775808', '922337203685477580.7', '-9.223372036854775808', '0', '0.00000001', '-0.1', '1', '100'];
    for ($round = 0; $round < 300; $round++) {
        $text = fn (): string => mt_rand(0, 2) === 0 ? $ends[mt_rand(0, count($ends) - 1)] : anyFigure();
        $start = $text();
        $exact = Exact::of(mt_rand(0, 1) === 0 ? $start : BigDecimal::of($start));
        $rational = BigRational::of($start);
        foreach (range(1, mt_rand(2, 6)) as $step) {
            $next = $text();
            [$exact, $rational] = match (mt_rand(0, 4)) {
                0 => [$exact->plus(Exact::of($next)), $rational->plus($next)],
                1 => [$exact->minus(Exact::of($next)), $rational->minus($next)],
                2 => [$exact->times(Exact::of($next)), $rational->multipliedBy($next)],
                3 => [$exact->times($step), $rational->multipliedBy($step)],
                default => BigDecimal::of($next)->isZero() ? [$exact->negated(), $rational->negated()] : [$exact->dividedBy(Exact::of($next)), $rational->dividedBy($next)],
            };
        }
        $decimals = mt_rand(0, 12);
        $rounded = fn (int $kept): BigDecimal => $rational->getNumerator()->toBigDecimal()->dividedBy($rational->getDenominator(), $kept, RoundingMode::HALF_UP);

        expect((string) $exact)->toBe((string) $rounded(12)->stripTrailingZeros())->and((string) $exact->rounded($decimals))->toBe((string) $rounded($decimals))
            ->and((string) $exact->givenOut())->toBe((string) $exact)->and($exact->sign())->toBe($rational->getSign())->and($exact->compareTo(Exact::of('1')))->toBe($rational->compareTo(1));
    }
});

it('stays between bounds', function (?string $least, ?string $most, string $clamped) {
    $bound = fn (?string $figure): ?Exact => $figure === null ? null : Exact::of($figure);

    expect((string) Exact::of('5')->clamp($bound($least), $bound($most)))->toBe($clamped);
})->with([[null, null, '5'], ['5', '5', '5'], ['6', null, '6'], [null, '4', '4'], ['1', '9', '5'], ['5.1', '9', '5.1'], ['1', '4.9', '4.9']]);

it('divides by no zero', fn () => Exact::of(1)->dividedBy(Exact::of('0.00')))->throws(Brick\Math\Exception\DivisionByZeroException::class);
