<?php

declare(strict_types=1);

namespace Kybernet\Core\Status;

/**
 * A unit's status on a span, from the KPIs and units directly under it.
 *
 * Red scores 0, amber 1, green 2; the score is the weighted mean of what is judged. Statuses are whole numbers and
 * weights have at most two decimals, so that comparisons with the cuts are made on hundredths, in whole numbers.
 */
final readonly class RollUp
{
    /** Below this share of the weight judged, a unit has no reading rather than a flattering colour. */
    private const LEAST_COVERAGE_PERCENT = 50;

    private const HUNDREDTHS = 100;

    private function __construct(
        public Status $status,
        /** 0 (all red) to 2 (all green); null when nothing is judged */
        public ?float $score,
        /** judged weight ÷ (judged + no-data weight), 0 to 1; null when nothing could be judged */
        public ?float $coverage,
        public Counts $counts,
    ) {}

    /**
     * @param  iterable<array{Status, float}>  $members  status and weight of each KPI and unit directly below
     * @param  Counts  $counts  of all KPIs below the unit, at any depth
     * @param  float  $green  the score from which the unit is green
     * @param  float  $amber  the score from which it is amber
     */
    public static function weighted(iterable $members, Counts $counts, float $green = 1.5, float $amber = 0.5): self
    {
        $judged = 0;
        $unknown = 0;
        $scored = 0;
        foreach ($members as [$status, $weight]) {
            $hundredths = (int) round($weight * self::HUNDREDTHS);
            $score = $status->score();
            if ($score !== null) {
                $judged += $hundredths;
                $scored += $hundredths * $score;
            } elseif ($status === Status::NoData) {
                $unknown += $hundredths;
            }
        }
        if ($judged + $unknown === 0) {
            return new self(Status::NotJudged, null, null, $counts);
        }
        $coverage = $judged / ($judged + $unknown);
        $score = $judged === 0 ? null : $scored / $judged;
        if ($judged * 100 < ($judged + $unknown) * self::LEAST_COVERAGE_PERCENT) {
            return new self(Status::NoData, $score, $coverage, $counts);
        }
        $reaches = fn (float $cut): bool => $scored * self::HUNDREDTHS >= $judged * (int) round($cut * self::HUNDREDTHS);

        return new self(match (true) {
            $reaches($green) => Status::Green,
            $reaches($amber) => Status::Amber,
            default => Status::Red,
        }, $score, $coverage, $counts);
    }
}
