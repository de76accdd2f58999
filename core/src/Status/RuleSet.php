<?php

declare(strict_types=1);

namespace Kybernet\Core\Status;

use Brick\Math\BigDecimal;
use InvalidArgumentException;
use Kybernet\Core\Calendar\Period;
use Kybernet\Core\Measure\Accumulation;
use Kybernet\Core\Measure\Exact;
use LogicException;

/**
 * What green, amber and red mean for a KPI, valid from a month on.
 */
final readonly class RuleSet
{
    /**
     * @param  Period  $from  the first month that it judges
     * @param  int|null  $periods  how many previous periods a recent reference takes the mean of
     * @param  BigDecimal|null  $stretch  a level beyond green that is marked when it is reached
     * @param  Pace  $pace  how much of the year target is asked for by now
     */
    private function __construct(
        public Period $from,
        public Reference $reference,
        public Deviation $measure,
        public Limits|BandLimits $limits,
        public ?int $periods = null,
        public ?BigDecimal $stretch = null,
        public Pace $pace = Pace::Whole,
    ) {}

    /** @throws InvalidArgumentException with the first of the problems that {@see problems()} finds */
    public static function define(
        Polarity $polarity,
        Accumulation $accumulation,
        Period $from,
        Reference $reference,
        Deviation $measure,
        BigDecimal $green,
        BigDecimal $amber,
        ?int $periods = null,
        ?BigDecimal $stretch = null,
        ?Pace $pace = null,
    ): self {
        foreach (self::problems($polarity, $accumulation, $reference, $measure, $green, $amber, $periods, $stretch, $pace) as $problem) {
            throw new InvalidArgumentException($problem);
        }

        return new self($from, $reference, $measure, new Limits($green, $amber), $periods, $stretch, $pace ?? Pace::Whole);
    }

    /**
     * Fixed levels of a band: green inside, amber within a margin outside.
     *
     * @throws InvalidArgumentException with the first of the problems that {@see bandProblems()} finds
     */
    public static function defineBand(
        Period $from,
        BigDecimal $low,
        BigDecimal $high,
        BigDecimal $marginLow,
        BigDecimal $marginHigh,
    ): self {
        foreach (self::bandProblems($low, $high, $marginLow, $marginHigh) as $problem) {
            throw new InvalidArgumentException($problem);
        }

        return new self($from, Reference::None, Deviation::Level, new BandLimits($low, $high, $marginLow, $marginHigh));
    }

    /**
     * Why such a rule set is refused, by the member at fault; none when it is sound.
     *
     * @return array<'polarity'|'measure'|'amber'|'periods'|'stretch'|'pace', string>
     */
    public static function problems(
        Polarity $polarity,
        Accumulation $accumulation,
        Reference $reference,
        Deviation $measure,
        BigDecimal $green,
        BigDecimal $amber,
        ?int $periods = null,
        ?BigDecimal $stretch = null,
        ?Pace $pace = null,
    ): array {
        if ($polarity === Polarity::None) {
            return ['polarity' => 'A KPI that is only tracked has no limits.'];
        }
        if (! $reference->goesWith($measure, $polarity, $accumulation)) {
            return ['measure' => $reference === Reference::YearTarget && $measure === Deviation::Reached
                ? "The reference 'year-target' is for totals of which more is better."
                : "'{$measure->value}' does not go with the reference '{$reference->value}'".($polarity === Polarity::Band ? ' on a band.' : '.')];
        }
        $problems = [];
        if (($reference === Reference::Recent) !== ($periods !== null)) {
            $problems['periods'] = $periods === null
                ? 'The number of previous periods is missing.'
                : 'Only a comparison with recent periods has a number of periods.';
        } elseif ($periods !== null && $periods < 1) {
            $problems['periods'] = 'At least one previous period is needed.';
        }
        if ($stretch !== null && $polarity === Polarity::Band) {
            $problems['stretch'] = 'A band has no stretch: nothing is better than inside.';
        } elseif ($stretch !== null && $measure === Deviation::Level && $polarity->adverse(Exact::of($stretch->minus($green)))->sign() > 0) {
            $problems['stretch'] = 'A stretch lies beyond on course: '.self::text($green).($polarity === Polarity::Lower ? ' or lower.' : ' or higher.');
        }
        if ($pace !== null && $reference !== Reference::YearTarget) {
            $problems['pace'] = 'Only a comparison with the year target has a pace.';
        }
        $amberIsTighter = match (true) {
            self::isUpperBound($measure, $polarity) => $amber->isLessThan($green),
            default => $amber->isGreaterThan($green),
        };
        if ($amberIsTighter) {
            $limit = self::text($green);
            $problems['amber'] = match (true) {
                $measure === Deviation::Percent => "Drifting must reach at least as far as on course: {$limit} % or more.",
                $measure === Deviation::Absolute => "Drifting must reach at least as far as on course: {$limit} or more.",
                $measure === Deviation::Reached => "Drifting must ask for no more than on course: {$limit} % or less.",
                $polarity === Polarity::Lower => "The level for drifting must be {$limit} or higher: lower is better here.",
                default => "The level for drifting must be {$limit} or lower: higher is better here.",
            };
        }

        return $problems;
    }

    /** @return array<'high'|'marginLow'|'marginHigh', string> why such levels of a band are refused, by the member at fault */
    public static function bandProblems(BigDecimal $low, BigDecimal $high, BigDecimal $marginLow, BigDecimal $marginHigh): array
    {
        return array_filter([
            'high' => $high->isLessThan($low) ? 'The upper limit must be '.self::text($low).' or more.' : '',
            'marginLow' => $marginLow->isNegative() ? 'A margin reaches outward: it cannot be negative.' : '',
            'marginHigh' => $marginHigh->isNegative() ? 'A margin reaches outward: it cannot be negative.' : '',
        ], fn (string $problem): bool => $problem !== '');
    }

    /**
     * A limit or a level of a single figure, grown to the periods that are compared.
     *
     * @throws LogicException for the levels of a band, which are no single ones
     */
    public function limit(Status $colour, int $factor): Exact
    {
        return $this->limits instanceof Limits ? $this->limits->of($colour, $factor) : throw new LogicException('A band has no single limit.');
    }

    private static function isUpperBound(Deviation $measure, Polarity $polarity): bool
    {
        return $measure === Deviation::Percent || $measure === Deviation::Absolute
            || ($measure === Deviation::Level && $polarity === Polarity::Lower);
    }

    private static function text(BigDecimal $limit): string
    {
        return (string) $limit->stripTrailingZeros();
    }
}
