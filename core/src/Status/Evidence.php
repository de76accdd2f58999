<?php

declare(strict_types=1);

namespace Kybernet\Core\Status;

use Kybernet\Core\Compare\LikeForLike;
use Kybernet\Core\Compare\PriorYear;
use Kybernet\Core\Measure\Accumulation;
use Kybernet\Core\Measure\Band;
use Kybernet\Core\Measure\Definition;
use Kybernet\Core\Measure\Exact;
use Kybernet\Core\Measure\Measurement;

/**
 * All that a status is decided on, gathered over the periods that the rule set can compare.
 */
final readonly class Evidence
{
    /**
     * @param  bool  $isDue  whether anything was due in the span
     * @param  Exact|null  $actual  over the periods compared; null when there is nothing to judge
     * @param  Exact|Band|null  $reference  over the same periods; null when there is none, or the rule needs none
     * @param  positive-int  $periods  how many are compared: limits of a total grow with them
     * @param  string|null  $gap  in words, what is missing: the actual, or else the reference
     */
    private function __construct(
        public Definition $kpi,
        public ?RuleSet $rule,
        public bool $isDue,
        public ?Exact $actual,
        public Exact|Band|null $reference,
        public int $periods,
        public ?string $gap,
    ) {}

    /** Nothing was due in the span. */
    public static function nothingDue(Measurement $measurement, string $words): self
    {
        return new self($measurement->definition, null, false, null, null, 1, $words);
    }

    /** No rule set decides: a KPI that is tracked, one whose limits are not in force yet, or a person's own colour. */
    public static function withoutRule(Measurement $measurement, LikeForLike $figures): self
    {
        return new self($measurement->definition, null, true, $figures->actual, null, max(1, count($figures->reported)), self::unread($measurement, $figures));
    }

    public static function againstTarget(Measurement $measurement, RuleSet $rule, LikeForLike $figures): self
    {
        $goal = $figures->compared > 0 ? $figures->goal : null;
        $actual = $goal === null ? $figures->actual : $figures->comparedActual;

        return new self(
            $measurement->definition,
            $rule,
            true,
            $actual,
            $goal === null ? null : $goal->band ?? $goal->target,
            max(1, $figures->compared),
            $actual === null ? self::unread($measurement, $figures) : self::unaimed($measurement, $figures),
        );
    }

    public static function againstPriorYear(Measurement $measurement, RuleSet $rule, LikeForLike $figures, PriorYear $prior): self
    {
        $actual = $prior->compared > 0 ? $prior->comparedActual : $figures->actual;

        return new self(
            $measurement->definition,
            $rule,
            true,
            $actual,
            $prior->figure,
            max(1, $prior->compared),
            $actual === null ? self::unread($measurement, $figures) : 'there is no prior year to compare with',
        );
    }

    /** Against the mean of the previous periods, which judges a span of one period only. */
    public static function againstRecent(Measurement $measurement, RuleSet $rule, LikeForLike $figures): self
    {
        $needed = $rule->periods ?? 1;
        $before = [];
        if (count($figures->due) === 1) {
            for ($back = 1; $back <= $needed; $back++) {
                $before[] = $measurement->actuals->figure($figures->due[0]->plus(-$back));
            }
        }
        $known = Exact::known($before);
        $isComplete = $known !== [] && count($known) === $needed;

        return new self(
            $measurement->definition,
            $rule,
            true,
            $figures->actual,
            $isComplete ? Accumulation::Mean->combine($known) : null,
            1,
            match (true) {
                $figures->actual === null => self::unread($measurement, $figures),
                count($figures->due) !== 1 => 'recent periods are compared with a single period only',
                default => "not all of the {$needed} previous periods have a reading",
            },
        );
    }

    /**
     * Against the year target: whatever span is shown, the year to date is judged.
     *
     * @param  LikeForLike  $figures  of the span shown
     * @param  LikeForLike  $toDate  of the year to date
     * @param  Exact|null  $asked  what the pace asks of the year target by now
     */
    public static function againstYearTarget(Measurement $measurement, RuleSet $rule, LikeForLike $figures, LikeForLike $toDate, ?Exact $asked): self
    {
        $unread = $figures->reported === [] ? $figures : $toDate;
        $actual = $figures->reported === [] ? null : $toDate->actual;

        return new self(
            $measurement->definition,
            $rule,
            $toDate->expected !== [] || $figures->reported === [],
            $actual,
            $asked,
            max(1, count($toDate->reported)),
            match (true) {
                $toDate->expected === [] && $figures->reported !== [] => 'nothing was due in the year to date',
                $actual === null => self::unread($measurement, $unread),
                default => 'there is no year target to compare with',
            },
        );
    }

    public static function byLevels(Measurement $measurement, RuleSet $rule, LikeForLike $figures): self
    {
        return new self(
            $measurement->definition,
            $rule,
            true,
            $figures->actual,
            null,
            max(1, count($figures->reported)),
            self::unread($measurement, $figures),
        );
    }

    /**
     * A projection to the year end, judged for all the periods of the year.
     *
     * @param  Exact|Band|null  $reference  of the full year
     * @param  positive-int  $periods  of the year
     */
    public static function projected(Definition $kpi, ?RuleSet $rule, ?Exact $value, Exact|Band|null $reference, int $periods): self
    {
        return new self($kpi, $rule, true, $value, $reference, $periods, $value === null ? 'there is no projection' : 'there is nothing to compare the projection with');
    }

    /** By how much limits that are stated for one period grow. */
    public function factor(): int
    {
        return $this->kpi->accumulation->limitFactor($this->periods);
    }

    /** The actual's adverse deviation from the reference, in the KPI's measure; favourable ones are below 0. */
    public function deviation(Exact $actual, Exact|Band $reference): Exact
    {
        return $reference instanceof Band
            ? $reference->distance($actual)
            : $this->kpi->polarity->adverse($actual->minus($reference));
    }

    private static function unaimed(Measurement $measurement, LikeForLike $figures): string
    {
        $why = $figures->reported === [] ? null : $measurement->targets->whyNone($figures->reported);

        return 'there is no target to compare with'.($why === null ? '' : ", as {$why}");
    }

    private static function unread(Measurement $measurement, LikeForLike $figures): ?string
    {
        return $measurement->actuals->whyNone($figures->reported === [] ? $figures->due : $figures->reported);
    }
}
