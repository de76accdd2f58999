<?php

declare(strict_types=1);

namespace Kybernet\Core\Measure;

use Brick\Math\BigDecimal;
use InvalidArgumentException;

/**
 * The targets of a year's periods, spread from one figure for the year or grown from last year's figures.
 *
 * For a total the targets add up to the year's figure, for a mean their mean is that figure. Rounding leaves a remainder;
 * it is placed on the last period that is spread to and said, so that nothing disappears (common practice). For the
 * latest, the highest and the lowest, all open periods are scaled so that the one which counts has the year's figure:
 * nothing is left over, and what is closed may still stand beyond it.
 */
final readonly class TargetPlan
{
    /**
     * @param  list<BigDecimal|null>  $targets  one a period; null where none can be made
     * @param  BigDecimal  $remainder  what rounding left over, contained in the target at `$remainderAt`
     * @param  int|null  $remainderAt  place of that target; null when nothing was left over
     */
    private function __construct(public array $targets, public BigDecimal $remainder, public ?int $remainderAt) {}

    /**
     * Spreads the year's figure by weights: equal ones spread it evenly, last year's figures by last year's shape.
     *
     * @param  BigDecimal  $year  what the targets are to be together, by the rule
     * @param  non-empty-list<Exact>  $weights  one a period
     * @param  array<int, BigDecimal>  $kept  targets that stay as they are, by place; the rest is spread over the others
     * @param  int<0, max>  $decimals  that targets are rounded to
     *
     * @throws InvalidArgumentException when nothing is left to spread to, or the weights add up to nothing
     */
    public static function spread(BigDecimal $year, array $weights, array $kept, Accumulation $rule, int $decimals): self
    {
        $open = array_values(array_diff(array_keys($weights), array_keys($kept)));
        if ($open === []) {
            throw new InvalidArgumentException('Every period of the year is closed.');
        }
        $isLevel = in_array($rule, [Accumulation::Latest, Accumulation::Maximum, Accumulation::Minimum], true);
        $share = ($isLevel ? $rule : Accumulation::Sum)->combine(array_map(fn (int $place): Exact => $weights[$place], $open));
        if ($share->sign() <= 0) {
            throw new InvalidArgumentException('The weights must add up to more than 0.');
        }
        if ($isLevel) {
            $scaled = array_map(fn (Exact $weight): BigDecimal => Exact::of($year)->times($weight)->dividedBy($share)->rounded($decimals), $weights);

            return new self(array_values(array_replace($scaled, $kept)), BigDecimal::zero(), null);
        }
        $total = Exact::of($year)->times($rule === Accumulation::Sum ? 1 : count($weights));
        foreach ($kept as $target) {
            $total = $total->minus(Exact::of($target));
        }
        $targets = $kept;
        $left = $total->rounded($decimals);
        foreach ($open as $place) {
            $targets[$place] = $total->times($weights[$place])->dividedBy($share)->rounded($decimals);
            $left = $left->minus($targets[$place]);
        }
        $last = $open[count($open) - 1];
        $targets[$last] = $targets[$last]->plus($left);
        ksort($targets);

        return new self(array_values($targets), $left, $left->isZero() ? null : $last);
    }

    /**
     * Last year's figures, each changed by a percentage and an amount; a period without one gets no target.
     *
     * @param  list<Exact|null>  $prior  last year's figures, one a period
     * @param  BigDecimal  $percent  added to each, in % of its absolute value
     * @param  BigDecimal  $amount  added to each, in the KPI's measure
     * @param  array<int, BigDecimal>  $kept  targets that stay as they are, by place
     * @param  int<0, max>  $decimals  that targets are rounded to
     */
    public static function grown(array $prior, BigDecimal $percent, BigDecimal $amount, array $kept, int $decimals): self
    {
        $targets = [];
        foreach ($prior as $place => $figure) {
            $targets[] = $kept[$place] ?? $figure
                ?->plus($figure->abs()->times(Exact::of($percent))->dividedBy(Exact::of(100)))
                ->plus(Exact::of($amount))
                ->rounded($decimals);
        }

        return new self($targets, BigDecimal::zero(), null);
    }
}
