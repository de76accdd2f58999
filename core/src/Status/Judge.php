<?php

declare(strict_types=1);

namespace Kybernet\Core\Status;

use Brick\Math\BigDecimal;
use Kybernet\Core\Measure\Exact;

/**
 * Decides a status on exact values, never on what is displayed: 94.96 shown as 95.0 against a limit of 95 is not
 * green.
 */
final class Judge
{
    public static function judge(Evidence $evidence): Status
    {
        $rule = $evidence->rule;

        return match (true) {
            $evidence->kpi->polarity === Polarity::None, $rule === null => Status::NotJudged,
            $evidence->actual === null => Status::NoData,
            $rule->measure === Deviation::Level => self::byLevel($evidence, $rule, $evidence->actual),
            $evidence->target === null => Status::NotJudged,
            default => self::byPercent($evidence->kpi->polarity, $rule, $evidence->actual, $evidence->target),
        };
    }

    /**
     * Adverse deviation in % of |target|. At a target of 0 the deviation is 0 when met, minus infinity when beaten
     * and plus infinity when missed, so that a zero-accident target is green at 0 and red at 1.
     */
    private static function byPercent(Polarity $polarity, RuleSet $rule, Exact $actual, Exact $target): Status
    {
        $adverse = $polarity->adverse($actual->minus($target));
        $within = function (BigDecimal $limit) use ($adverse, $target): bool {
            if ($target->isZero()) {
                return $adverse->sign() < 0 || ($adverse->isZero() && ! $limit->isNegative());
            }

            return $adverse->times(100)->compareTo($target->abs()->times($limit)) <= 0;
        };

        return self::first($within($rule->green), fn (): bool => $within($rule->amber));
    }

    private static function byLevel(Evidence $evidence, RuleSet $rule, Exact $actual): Status
    {
        $reaches = fn (Status $colour): bool => $evidence->kpi->polarity
            ->adverse($actual->minus($evidence->level($rule, $colour)))->sign() <= 0;

        return self::first($reaches(Status::Green), fn (): bool => $reaches(Status::Amber));
    }

    /** @param  callable(): bool  $amber */
    private static function first(bool $green, callable $amber): Status
    {
        return match (true) {
            $green => Status::Green,
            $amber() => Status::Amber,
            default => Status::Red,
        };
    }
}
