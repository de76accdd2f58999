<?php

declare(strict_types=1);

namespace Kybernet\Core\Status;

use Brick\Math\BigDecimal;
use Kybernet\Core\Measure\Definition;
use Kybernet\Core\Measure\Exact;

/**
 * The sentence that a status defends itself with: the deviation, the reference and the limits that led to it.
 */
final class Explanation
{
    /** A percentage in a sentence has one decimal, and more only where one would hide which side of a limit it is on. */
    private const PERCENT_DECIMALS = 1;

    private const MOST_DECIMALS = 12;

    public static function of(Evidence $evidence, Status $status): string
    {
        $rule = $evidence->rule;

        return match (true) {
            $evidence->kpi->polarity === Polarity::None => 'Not judged: this KPI is only tracked.',
            $rule === null => 'Not judged: no limits were in force yet.',
            $evidence->actual === null => 'No reading yet.',
            $rule->measure === Deviation::Level => self::byLevel($evidence, $rule, $evidence->actual, $status),
            $evidence->target === null => 'Not judged: there is no target to compare with.',
            default => self::byPercent($evidence->kpi, $rule, $evidence->actual, $evidence->target, $status),
        };
    }

    private static function byPercent(Definition $kpi, RuleSet $rule, Exact $actual, Exact $target, Status $status): string
    {
        $difference = $actual->minus($target);
        $found = match (true) {
            $difference->isZero() => 'exactly on target',
            $target->isZero() => self::figure($actual, $kpi->decimals, []).self::unit($kpi).' against a target of 0',
            default => self::figure(
                $difference->times(100)->dividedBy($target)->abs(),
                self::PERCENT_DECIMALS,
                [Exact::of($rule->green->abs()), Exact::of($rule->amber->abs())],
            ).' % '.self::side($difference->sign()).' target',
        };

        return "{$status->words()}: {$found}. On course "
            .self::bound($kpi->polarity, $rule->green).', drifting '.self::bound($kpi->polarity, $rule->amber).'.';
    }

    private static function byLevel(Evidence $evidence, RuleSet $rule, Exact $actual, Status $status): string
    {
        $kpi = $evidence->kpi;
        $unit = self::unit($kpi);
        $reach = $kpi->polarity === Polarity::Higher ? 'from' : 'up to';
        $green = $evidence->level($rule, Status::Green);
        $amber = $evidence->level($rule, Status::Amber);

        return "{$status->words()}: at ".self::figure($actual, $kpi->decimals, [$green, $amber]).$unit
            .". On course {$reach} ".self::plain($green->toDecimal()).$unit
            .", drifting {$reach} ".self::plain($amber->toDecimal()).$unit.'.';
    }

    /** Where a percentage limit lies, seen from the target: adverse limits beyond it, negative ones before it. */
    private static function bound(Polarity $polarity, BigDecimal $limit): string
    {
        if ($limit->isZero()) {
            return 'at target or better';
        }
        $adverseSide = $polarity === Polarity::Higher ? -1 : 1;
        $reach = $limit->isNegative() ? 'from' : 'to';

        return "{$reach} ".self::plain($limit->abs()).' % '.self::side($limit->getSign() * $adverseSide);
    }

    private static function side(int $sign): string
    {
        return $sign > 0 ? 'over' : 'under';
    }

    private static function unit(Definition $kpi): string
    {
        return $kpi->measure === '' ? '' : " {$kpi->measure}";
    }

    /**
     * A figure rounded for reading, but never onto or across a limit that it is not on.
     *
     * @param  int<0, max>  $decimals
     * @param  list<Exact>  $limits
     */
    private static function figure(Exact $figure, int $decimals, array $limits): string
    {
        $kept = $decimals;
        while ($kept < self::MOST_DECIMALS && ! self::isFaithful($figure, $kept, $limits)) {
            $kept++;
        }

        return self::plain($figure->rounded($kept));
    }

    /**
     * @param  int<0, max>  $decimals
     * @param  list<Exact>  $limits
     */
    private static function isFaithful(Exact $figure, int $decimals, array $limits): bool
    {
        $shown = Exact::of($figure->rounded($decimals));
        foreach ($limits as $limit) {
            if ($shown->compareTo($limit) !== $figure->compareTo($limit)) {
                return false;
            }
        }

        return $shown->sign() === $figure->sign();
    }

    private static function plain(BigDecimal $figure): string
    {
        return str_replace('-', "\u{2212}", (string) $figure->stripTrailingZeros());
    }
}
