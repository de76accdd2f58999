<?php

declare(strict_types=1);

namespace Kybernet\Core\Status;

use Brick\Math\BigDecimal;
use Kybernet\Core\Measure\Accumulation;
use Kybernet\Core\Measure\Band;
use Kybernet\Core\Measure\Definition;
use Kybernet\Core\Measure\Exact;
use Kybernet\Core\Measure\Kind;

/**
 * The sentence that a status defends itself with: the deviation, the reference, the limits and the rule set that led
 * to it.
 */
final class Explanation
{
    /** A percentage in a sentence has one decimal, and more only where one would hide which side of a limit it is on. */
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
            default => "{$status->words()}: ".self::found($evidence, $rule, $evidence->actual).' '.self::limits($evidence, $rule)
                .self::stretch($evidence, $status).($isDated ? " Limits since {$rule->from->words()}." : ''),
        };
    }

    private static function byPerson(Evidence $evidence, Status $status): string
    {
        return match (true) {
            $evidence->actual === null => 'No reading yet.',
            $evidence->periods === 1 || $evidence->kpi->accumulation !== Accumulation::Mean => "{$status->words()}: judged by a person.",
            default => "{$status->words()}: the mean of what was judged by a person, ".self::plain($evidence->actual->rounded(2)).' between 0 and 2. On course from 1.5, drifting from 0.5.',
        };
    }

    private static function found(Evidence $evidence, RuleSet $rule, Exact $actual): string
    {
        $reference = $evidence->reference;

        return match (true) {
            $rule->measure === Deviation::Level || $reference === null => 'at '.self::measured($evidence->kpi, $actual, self::levels($evidence, $rule)).'.',
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
            $limits = [Exact::of($rule->green->abs())->times($evidence->factor()), Exact::of($rule->amber->abs())->times($evidence->factor())];

            return self::measured($evidence->kpi, $difference->abs(), $limits).' '.self::side($difference->sign())." {$noun}.";
        }
        if ($reference->isZero()) {
            return self::measured($evidence->kpi, $actual, []).($rule->reference === Reference::Target ? ' against a target of 0.' : " where {$noun} is 0.");
        }
        $percent = self::figure(
            $difference->times(100)->dividedBy($reference)->abs(),
            self::PERCENT_DECIMALS,
            [Exact::of($rule->green->abs()), Exact::of($rule->amber->abs())],
        );

        return "{$percent} % ".self::side($difference->sign())." {$noun}.";
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
            ? ' ('.self::figure($distance->times(100)->dividedBy($broken)->abs(), self::PERCENT_DECIMALS, [Exact::of($rule->green), Exact::of($rule->amber)]).' %)'
            : '';

        return self::measured($kpi, $distance->abs(), []).' '.($distance->sign() > 0 ? 'above' : 'below')." {$inside}{$percent}.";
    }

    private static function share(Evidence $evidence, RuleSet $rule, Exact $actual, Exact $reference): string
    {
        $share = $actual->times(100)->dividedBy($reference);
        $limits = [Exact::of($rule->green), Exact::of($rule->amber)];
        if ($evidence->kpi->polarity === Polarity::Lower) {
            $turned = Exact::of(200)->minus($share);

            return 'at '.self::figure($share, self::PERCENT_DECIMALS, []).' % of '.self::noun($rule).', which counts as '.self::figure($turned, self::PERCENT_DECIMALS, $limits).' %.';
        }

        return self::figure($share, self::PERCENT_DECIMALS, $limits).' % of '.self::noun($rule).' reached.';
    }

    private static function limits(Evidence $evidence, RuleSet $rule): string
    {
        $kpi = $evidence->kpi;
        if ($rule->measure === Deviation::Level) {
            if ($rule->margins !== null) {
                $green = $rule->levelBand(Status::Green, $evidence->factor());
                $amber = $rule->levelBand(Status::Amber, $evidence->factor());
                $range = fn (Band $band): string => self::exactly($kpi, $band->low).' to '.self::exactly($kpi, $band->high);

                return "On course from {$range($green)}, drifting from {$range($amber)}.";
            }
            $reach = $kpi->polarity === Polarity::Higher ? 'from' : 'up to';
            [$green, $amber] = self::levels($evidence, $rule);

            return "On course {$reach} ".self::exactly($kpi, $green).", drifting {$reach} ".self::exactly($kpi, $amber).'.';
        }
        if ($rule->measure === Deviation::Reached) {
            return 'On course from '.self::plain($rule->green).' %, drifting from '.self::plain($rule->amber).' %.';
        }

        return 'On course '.self::bound($evidence, $rule, $rule->green).', drifting '.self::bound($evidence, $rule, $rule->amber).'.';
    }

    /** Where a limit of deviation lies, seen from the reference: adverse limits beyond it, negative ones before it. */
    private static function bound(Evidence $evidence, RuleSet $rule, BigDecimal $limit): string
    {
        $isBand = $evidence->kpi->polarity === Polarity::Band;
        if ($limit->isZero()) {
            return match (true) {
                $isBand => 'inside',
                $rule->reference === Reference::Target => 'at target or better',
                default => 'at '.self::noun($rule).' or better',
            };
        }
        $adverseSide = $evidence->kpi->polarity === Polarity::Higher ? -1 : 1;
        $reach = $limit->isNegative() ? 'from' : 'to';
        $size = $rule->measure === Deviation::Percent
            ? self::plain($limit->abs()).' %'
            : self::exactly($evidence->kpi, Exact::of($limit->abs())->times($evidence->factor()));

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
            Reference::YearTarget => 'the year target',
            default => 'target',
        };
    }

    /** @return array{Exact, Exact} green and amber level, grown to the periods compared */
    private static function levels(Evidence $evidence, RuleSet $rule): array
    {
        return $rule->margins === null
            ? [$rule->limit(Status::Green, $evidence->factor()), $rule->limit(Status::Amber, $evidence->factor())]
            : [$rule->levelBand(Status::Green, $evidence->factor())->low, $rule->levelBand(Status::Green, $evidence->factor())->high];
    }

    private static function side(int $sign): string
    {
        return $sign > 0 ? 'over' : 'under';
    }

    private static function unit(Definition $kpi): string
    {
        return $kpi->measure === '' ? '' : " {$kpi->measure}";
    }

    /** @param  list<Exact>  $limits */
    private static function measured(Definition $kpi, Exact $figure, array $limits): string
    {
        return self::figure($figure, $kpi->decimals, $limits).self::unit($kpi);
    }

    private static function exactly(Definition $kpi, Exact $limit): string
    {
        return self::plain($limit->toDecimal()).self::unit($kpi);
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
