<?php

declare(strict_types=1);

namespace Kybernet\Core;

use Kybernet\Core\Attention\Streak;
use Kybernet\Core\Calendar\FinancialYear;
use Kybernet\Core\Calendar\Period;
use Kybernet\Core\Calendar\Span;
use Kybernet\Core\Compare\LikeForLike;
use Kybernet\Core\Compare\PriorYear;
use Kybernet\Core\Compare\Variance;
use Kybernet\Core\Measure\Exact;
use Kybernet\Core\Measure\Measurement;
use Kybernet\Core\Status\Evidence;
use Kybernet\Core\Status\Judge;
use Kybernet\Core\Status\Status;
use Kybernet\Core\Status\Zones;

/**
 * The front door: definitions and figures in, assessments out. It composes the rules and holds none.
 */
final class Scorecard
{
    /** How far back a run of equal colours is followed. */
    private const STREAK_PERIODS = 24;

    /** @var array<string, non-empty-list<Period>> months of the spans asked for: many KPIs are assessed on the same few */
    private array $spans = [];

    public function __construct(public readonly FinancialYear $year) {}

    public function assess(Measurement $measurement, Period $chosen, Span $span): Assessment
    {
        $figures = LikeForLike::gather($measurement, $this->months($chosen, $span));
        $evidence = $this->evidence($measurement, $figures, $chosen);
        $status = Judge::judge($evidence);
        $prior = PriorYear::gather($measurement, $figures);

        return new Assessment(
            $figures,
            $prior,
            $figures->compared === 0 ? null : $this->against($measurement, $figures->comparedActual, $figures->target),
            $this->against($measurement, $prior->comparedActual, $prior->figure),
            $this->step($measurement, $figures),
            $status,
            Zones::of($evidence, $figures->target),
            $evidence,
        );
    }

    /** The status alone, as it is needed in numbers: for roll-ups, ribbons and streaks. */
    public function status(Measurement $measurement, Period $chosen, Span $span): Status
    {
        $figures = LikeForLike::gather($measurement, $this->months($chosen, $span));

        return Judge::judge($this->evidence($measurement, $figures, $chosen));
    }

    /** How many single periods up to the chosen one have had its colour, looking back over two years. */
    public function streak(Measurement $measurement, Period $chosen): ?Streak
    {
        $latestFirst = (function () use ($measurement, $chosen): iterable {
            for ($back = 0; $back < self::STREAK_PERIODS; $back++) {
                yield $this->status($measurement, $chosen->plus(-$back), Span::Month);
            }
        })();

        return Streak::of($latestFirst);
    }

    /** @return non-empty-list<Period> */
    private function months(Period $chosen, Span $span): array
    {
        return $this->spans[$chosen->key().$span->value] ??= $span->periods($chosen, $this->year);
    }

    private function evidence(Measurement $measurement, LikeForLike $figures, Period $chosen): Evidence
    {
        return Evidence::from($measurement->definition, $measurement->definition->ruleAt($chosen), $figures);
    }

    private function against(Measurement $measurement, ?Exact $actual, ?Exact $reference): ?Variance
    {
        return $actual === null || $reference === null
            ? null
            : Variance::between($actual, $reference, $measurement->definition->polarity);
    }

    private function step(Measurement $measurement, LikeForLike $figures): ?Variance
    {
        if (count($figures->months) !== 1 || $figures->actual === null) {
            return null;
        }
        $previous = $measurement->actuals->at($figures->months[0]->previous());

        return $previous === null ? null : $this->against($measurement, $figures->actual, Exact::of($previous));
    }
}
