<?php

declare(strict_types=1);

namespace Kybernet\Core\Compare;

use Kybernet\Core\Trend\StudentT;

/**
 * How closely two KPIs go together over units, and whether chance would make such a picture.
 */
final readonly class Association
{
    /** Below this it is called hardly chance (common practice). */
    private const HARDLY = 0.05;

    /** So far apart the correlation and that of the ranks are told: a few that lie far out make the difference (common practice). */
    private const APART = 0.2;

    private function __construct(
        public float $pearson,
        public float $spearman,
        /** how many units have both */
        public int $pairs,
        /**
         * the probability of a correlation at least that far from 0 where the two have nothing to do with each other
         *
         * Source: t = r·√((n − 2) ÷ (1 − r²)) with n − 2 degrees of freedom; Fisher, Statistical Methods for Research
         * Workers (1925), chapter 6 (from memory).
         */
        public float $chance,
        public Moving $moving,
    ) {}

    /**
     * @param  array<int|string, float>  $one  by unit
     * @param  array<int|string, float>  $other
     * @return self|null null with fewer than three units that have both, or when one of them is constant
     */
    public static function of(array $one, array $other): ?self
    {
        $pearson = Correlation::pearson($one, $other);
        $spearman = Correlation::spearman($one, $other);
        if ($pearson === null || $spearman === null) {
            return null;
        }
        $pairs = count(array_intersect_key($one, $other));
        $rest = 1 - $pearson ** 2;

        return new self($pearson, $spearman, $pairs, $rest <= 0.0 ? 0.0 : StudentT::twoSided($pearson * sqrt(($pairs - 2) / $rest), $pairs - 2), Moving::of($pearson));
    }

    public function isByFew(): bool
    {
        return abs($this->pearson - $this->spearman) > self::APART;
    }

    public function isHardlyChance(): bool
    {
        return $this->chance < self::HARDLY;
    }
}
