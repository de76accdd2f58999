<?php

declare(strict_types=1);

namespace Kybernet\Core\Status;

use Brick\Math\BigDecimal;
use Kybernet\Core\Measure\Accumulation;
use Kybernet\Core\Measure\Band;
use Kybernet\Core\Measure\Definition;
use Kybernet\Core\Measure\Exact;
use Kybernet\Core\Measure\InWords;
use Kybernet\Core\Measure\Kind;

/**
 * The sentence that a status defends itself with: the deviation, the reference, the limits and the rule set that led
 * to it.
 */
final class Explanation
{
    /** A percentage in a sentence has one decimal, and more only where one would hide which side of a limit it is on. */
    /** Where both limits are the same. */
    private const NO_AMBER = ', else off course.';

    private const PERCENT_DECIMALS = 1;

    private const MOST_DECIMALS = 12;

    /** @param  bool  $isDated  whether it says since when the limits hold; limits that are only tried hold since never */
    public static function of(Evidence $evidence, Status $status, bool $isDated = true): string
    {
        $rule = $evidence->rule;
        if ($evidence->kpi->kind === Kind::Judged && $evidence->isDue) {
            return self::byPerson($evidence, $status);
        }

        return match (true) {
            ! $evidence->isDue => "Not judged: {$evidence->gap}.",
            $evidence->kpi->polarity === Polarity::None => 'Not judged: this KPI is only tracked.',
            $rule === null => 'Not judged: no limits were in force yet.',
            $evidence->actual === null => $evidence->gap === null ? 'No reading yet.' : "No value: {$evidence->gap}.",
            $status === Status::NotJudged && $evidence->reference !== null => 'Not judged: there is no share of '.self::noun($rule).', which is not above 0.',
            $status === Status::NotJudged => "Not judged: {$evidence->gap}.",
            default => "{$status->words()}: ".self::found($evidence, $rule, $evidence->actual).' '.self::limits($evidence->kpi, $rule, $evidence->factor())
                .self::stretch($evidence, $status).($isDated ? " Limits since {$rule->from->words()}." : ''),
        };
    }

    /** What a rule set asks of one period, whatever was reported. */
    public static function rule(Definition $kpi, RuleSet $rule): string
    {
        $against = match (true) {
            $rule->measure === Deviation::Level => '',
            $rule->measure === Deviation::Reached => 'By the share of '.self::noun($rule).'. ',
            default => 'Against '.self::noun($rule).'. ',
        };
        $stretch = $rule->stretch === null ? '' : ' Stretch: '.self::exactly($kpi, Exact::of($rule->stretch)).'.';

        return $against.self::limits($kpi, $rule, 1).$stretch;
    }

    private static function byPerson(Evidence $evidence, Status $status): string
    {
        return match (true) {
            $evidence->actual === null => 'No reading yet.',
            $evidence->periods === 1 || $evidence->kpi->accumulation !== Accumulation::Mean => "{$status->words()}: judged by a person.",
            default => "{$status->words()}: the mean of what was judged by a person, ".InWords::figure($evidence->actual->rounded(2)).' between 0 and 2. On course from 1.5, drifting from 0.5.',
        };
    }

    private static function found(Evidence $evidence, RuleSet $rule, Exact $actual): string
    {
        $reference = $evidence->reference;

        return match (true) {
            $rule->measure === Deviation::Level || $reference === null => 'at '.self::measured($evidence->kpi, $actual, self::levels($rule, $evidence->factor())).'.',
            $reference instanceof Band => self::fromBand($evidence, $rule, $actual, $reference),
            $rule->measure === Deviation::Reached => self::share($evidence, $rule, $actual, $reference),
            default => self::fromReference($evidence, $rule, $actual, $reference),
        };
    }

    private static function fromReference(Evidence $evidence, RuleSet $rule, Exact $actual, Exact $reference): string
    {
        $difference = $actual->minus($reference);
        $noun = self::noun($rule);
        if ($difference->isZero()) {
            return ($rule->reference === Reference::Target ? 'exactly on ' : 'exactly at ')."{$noun}.";
        }
        if ($rule->measure === Deviation::Absolute) {
            $limits = [$rule->limit(Status::Green, $evidence->factor())->abs(), $rule->limit(Status::Amber, $evidence->factor())->abs()];

            return self::measured($evidence->kpi, $difference->abs(), $limits).' '.self::side($difference->sign())." {$noun}.";
        }
        if ($reference->isZero()) {
            return self::measured($evidence->kpi, $actual, []).($rule->reference === Reference::Target ? ' against a target of 0.' : " where {$noun} is 0.");
        }
        $percent = self::percent($difference->times(100)->dividedBy($reference)->abs(), [$rule->limit(Status::Green, 1)->abs(), $rule->limit(Status::Amber, 1)->abs()]);

        return "{$percent} ".self::side($difference->sign())." {$noun}.";
    }

    private static function fromBand(Evidence $evidence, RuleSet $rule, Exact $actual, Band $band): string
    {
        $kpi = $evidence->kpi;
        $inside = self::measured($kpi, $band->low, []).' to '.self::measured($kpi, $band->high, []);
        $broken = $band->broken($actual);
        if ($broken === null) {
            return "inside {$inside}.";
        }
        $distance = $actual->minus($broken);
        $percent = $rule->measure === Deviation::Percent && ! $broken->isZero()
            ? ' ('.self::percent($distance->times(100)->dividedBy($broken)->abs(), [$rule->limit(Status::Green, 1), $rule->limit(Status::Amber, 1)]).')'
            : '';

        return self::measured($kpi, $distance->abs(), []).' '.($distance->sign() > 0 ? 'above' : 'below')." {$inside}{$percent}.";
    }

    private static function share(Evidence $evidence, RuleSet $rule, Exact $actual, Exact $reference): string
    {
        $share = $actual->times(100)->dividedBy($reference);
        $limits = [$rule->limit(Status::Green, 1), $rule->limit(Status::Amber, 1)];
        if ($evidence->kpi->polarity === Polarity::Lower) {
            $turned = Exact::of(200)->minus($share);

            return 'at '.self::percent($share, []).' of '.self::noun($rule).', which counts as '.self::percent($turned, $limits).'.';
        }

        return self::percent($share, $limits).' of '.self::noun($rule).' reached.';
    }

    private static function limits(Definition $kpi, RuleSet $rule, int $factor): string
    {
        if ($rule->measure === Deviation::Level) {
            if ($rule->limits instanceof BandLimits) {
                $green = $rule->limits->of(Status::Green, $factor);
                $amber = $rule->limits->of(Status::Amber, $factor);
                $range = fn (Band $band): string => self::exactly($kpi, $band->low).' to '.self::exactly($kpi, $band->high);

                return "On course from {$range($green)}, drifting from {$range($amber)}.";
            }
            $reach = $kpi->polarity === Polarity::Higher ? 'from' : 'up to';
            [$green, $amber] = self::levels($rule, $factor);

            return "On course {$reach} ".self::exactly($kpi, $green).($green->compareTo($amber) === 0 ? self::NO_AMBER : ", drifting {$reach} ".self::exactly($kpi, $amber).'.');
        }
        [$green, $amber] = [$rule->limit(Status::Green, 1)->toDecimal(), $rule->limit(Status::Amber, 1)->toDecimal()];
        if ($green->isEqualTo($amber)) {
            return 'On course '.($rule->measure === Deviation::Reached ? 'from '.InWords::figure($green).' %' : self::bound($kpi, $rule, $factor, $green)).self::NO_AMBER;
        }
        if ($rule->measure === Deviation::Reached) {
            return 'On course from '.InWords::figure($green).' %, drifting from '.InWords::figure($amber).' %.';
        }

        return 'On course '.self::bound($kpi, $rule, $factor, $green).', drifting '.self::bound($kpi, $rule, $factor, $amber).'.';
    }

    /** Where a limit of deviation lies, seen from the reference: adverse limits beyond it, negative ones before it. */
    private static function bound(Definition $kpi, RuleSet $rule, int $factor, BigDecimal $limit): string
    {
        $isBand = $kpi->polarity === Polarity::Band;
        if ($limit->isZero()) {
            return match (true) {
                $isBand => 'inside',
                $rule->reference === Reference::Target => 'at target or better',
                default => 'at '.self::noun($rule).' or better',
            };
        }
        $adverseSide = $kpi->polarity === Polarity::Higher ? -1 : 1;
        $reach = $limit->isNegative() ? 'from' : 'to';
        $size = $rule->measure === Deviation::Percent
            ? InWords::figure($limit->abs()).' %'
            : self::exactly($kpi, Exact::of($limit->abs())->times($factor));

        return "{$reach} {$size} ".($isBand ? 'outside' : self::side($limit->getSign() * $adverseSide));
    }

    private static function stretch(Evidence $evidence, Status $status): string
    {
        $stretch = $evidence->rule?->stretch;
        if ($stretch === null) {
            return '';
        }
        $level = self::exactly($evidence->kpi, Exact::of($stretch)->times($evidence->factor()));

        return Judge::reachesStretch($evidence, $status) ? " The stretch of {$level} is reached." : " Stretch: {$level}.";
    }

    private static function noun(RuleSet $rule): string
    {
        return match ($rule->reference) {
            Reference::PriorYear => 'last year',
            Reference::Recent => $rule->periods === 1 ? 'the previous period' : "the mean of the previous {$rule->periods} periods",
            Reference::YearTarget => match ($rule->pace) {
                Pace::Whole => 'the year target',
                Pace::Even => 'an even share of the year target by now',
                Pace::LastYear => 'what the year target asks for by now, in last year’s shape',
            },
            default => 'target',
        };
    }

    /** @return array{Exact, Exact} green and amber level, grown to the periods compared */
    private static function levels(RuleSet $rule, int $factor): array
    {
        if ($rule->limits instanceof BandLimits) {
            $band = $rule->limits->of(Status::Green, $factor);

            return [$band->low, $band->high];
        }

        return [$rule->limits->of(Status::Green, $factor), $rule->limits->of(Status::Amber, $factor)];
    }

    private static function side(int $sign): string
    {
        return $sign > 0 ? 'over' : 'under';
    }

    /** @param  list<Exact>  $limits */
    private static function measured(Definition $kpi, Exact $figure, array $limits): string
    {
        return InWords::measured(self::readable($figure, $kpi->decimals, $limits), $kpi->measure);
    }

    private static function exactly(Definition $kpi, Exact $limit): string
    {
        return InWords::measured($limit->toDecimal(), $kpi->measure);
    }

    /** @param  list<Exact>  $limits */
    private static function percent(Exact $percent, array $limits): string
    {
        return InWords::figure(self::readable($percent, self::PERCENT_DECIMALS, $limits)).' %';
    }

    /**
     * A figure rounded for reading, but never onto or across a limit that it is not on.
     *
     * @param  int<0, max>  $decimals
     * @param  list<Exact>  $limits
     */
    private static function readable(Exact $figure, int $decimals, array $limits): BigDecimal
    {
        $kept = $decimals;
        while ($kept < self::MOST_DECIMALS && ! self::isFaithful($figure, $kept, $limits)) {
            $kept++;
        }

        return $figure->rounded($kept);
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
}
