<?php

declare(strict_types=1);

namespace Kybernet\Core\Status;

use Kybernet\Core\Measure\Band;
use Kybernet\Core\Measure\Exact;
use Kybernet\Core\Measure\Kind;

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
            ! $evidence->isDue => Status::NotJudged,
            $evidence->kpi->kind === Kind::Judged => self::byPerson($evidence->actual),
            $evidence->kpi->polarity === Polarity::None, $rule === null => Status::NotJudged,
            $evidence->actual === null => Status::NoData,
            $rule->measure === Deviation::Level => self::byLevel($evidence, $rule, $evidence->actual),
            $evidence->reference === null => Status::NotJudged,
            default => match ($rule->measure) {
                Deviation::Percent => self::byPercent($evidence, $rule, $evidence->actual, $evidence->reference),
                Deviation::Absolute => self::byAbsolute($evidence, $rule, $evidence->actual, $evidence->reference),
                default => self::byReached($evidence, $rule, $evidence->actual, $evidence->reference),
            },
        };
    }

    /** Whether a green has reached the stretch that its rule set names. */
    public static function reachesStretch(Evidence $evidence, Status $status): bool
    {
        $stretch = $evidence->rule?->stretch;

        return $stretch !== null && $status === Status::Green && $evidence->actual !== null
            && $evidence->kpi->polarity->adverse($evidence->actual->minus(Exact::of($stretch)->times($evidence->factor())))->sign() <= 0;
    }

    /** The latest colour, or the mean of the scores cut half-way between two of them. */
    private static function byPerson(?Exact $score): Status
    {
        return match (true) {
            $score === null => Status::NoData,
            $score->compareTo(Exact::of('1.5')) >= 0 => Status::Green,
            $score->compareTo(Exact::of('0.5')) >= 0 => Status::Amber,
            default => Status::Red,
        };
    }

    /**
     * Adverse deviation in % of the reference's absolute value, on a band of the limit that is broken. At 0 the
     * deviation is 0 when met, minus infinity when beaten and plus infinity when missed, so that a zero-accident
     * target is green at 0 and red at 1.
     */
    private static function byPercent(Evidence $evidence, RuleSet $rule, Exact $actual, Exact|Band $reference): Status
    {
        $adverse = $evidence->deviation($actual, $reference);
        $base = $reference instanceof Band ? $reference->broken($actual) ?? $reference->low : $reference;
        $within = function (Exact $limit) use ($adverse, $base): bool {
            if ($base->isZero() || $adverse->isZero()) {
                return $adverse->sign() < 0 || ($adverse->isZero() && $limit->sign() >= 0);
            }

            return $adverse->times(100)->compareTo($base->abs()->times($limit)) <= 0;
        };

        return self::first($within($rule->limit(Status::Green, 1)), fn (): bool => $within($rule->limit(Status::Amber, 1)));
    }

    private static function byAbsolute(Evidence $evidence, RuleSet $rule, Exact $actual, Exact|Band $reference): Status
    {
        $adverse = $evidence->deviation($actual, $reference);
        $within = fn (Status $colour): bool => $adverse->compareTo($rule->limit($colour, $evidence->factor())) <= 0;

        return self::first($within(Status::Green), fn (): bool => $within(Status::Amber));
    }

    /** actual ÷ reference × 100 where higher is better, 200 − that where lower is; not judged from 0 down. */
    private static function byReached(Evidence $evidence, RuleSet $rule, Exact $actual, Exact|Band $reference): Status
    {
        if ($reference instanceof Band || $reference->sign() <= 0) {
            return Status::NotJudged;
        }
        $share = $actual->times(100);
        $scaled = $evidence->kpi->polarity === Polarity::Higher ? $share : $reference->times(200)->minus($share);
        $reaches = fn (Exact $limit): bool => $scaled->compareTo($reference->times($limit)) >= 0;

        return self::first($reaches($rule->limit(Status::Green, 1)), fn (): bool => $reaches($rule->limit(Status::Amber, 1)));
    }

    private static function byLevel(Evidence $evidence, RuleSet $rule, Exact $actual): Status
    {
        $factor = $evidence->factor();
        $reaches = fn (Status $colour): bool => $rule->limits instanceof BandLimits
            ? $rule->limits->of($colour, $factor)->broken($actual) === null
            : $evidence->kpi->polarity->adverse($actual->minus($rule->limits->of($colour, $factor)))->sign() <= 0;

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
