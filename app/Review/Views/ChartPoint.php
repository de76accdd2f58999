<?php

declare(strict_types=1);

namespace App\Review\Views;

use App\Figures\MeasurementFacts;
use App\Views\Difference;
use App\Views\Shown;
use App\Views\StatusSchema;
use App\Views\ZonesView;
use Kybernet\Core\Assessment;
use Kybernet\Core\Measure\Exact;
use OpenApi\Attributes as OA;

#[OA\Schema(description: 'One place on the chart of a KPI: a period, or a span that ends with it.')]
final readonly class ChartPoint
{
    private function __construct(
        #[OA\Property(description: 'the period, or the month in which the span ends')] public string $period,
        #[OA\Property(ref: StatusSchema::REF)] public string $status,
        #[OA\Property(description: 'a person called the status')] public bool $called,
        #[OA\Property] public ?Shown $actual,
        #[OA\Property(description: 'of a band its lower end')] public ?Shown $target,
        #[OA\Property(description: 'the upper end of a band')] public ?Shown $upper,
        #[OA\Property] public ?Shown $prior,
        #[OA\Property] public ?Difference $variance,
        #[OA\Property] public ?ZonesView $zones,
        #[OA\Property(description: 'the mean of the period and the two before it')] public ?string $average,
        #[OA\Property(description: 'the day up to which its figure counts, where a period of it was not over')] public ?string $asOf,
    ) {}

    /** @param  Exact|null  $prior  last year's figure, also where this year has none yet */
    public static function of(MeasurementFacts $kpi, string $period, Assessment $assessed, ?Exact $prior, ?Exact $average = null): self
    {
        $goal = $assessed->figures->goal;

        return new self(
            $period,
            $assessed->status->value,
            $assessed->call !== null,
            Shown::of($assessed->figures->actual, $kpi),
            Shown::of($goal->band->low ?? $goal?->target, $kpi),
            Shown::of($goal?->band?->high, $kpi),
            Shown::of($prior, $kpi),
            Difference::of($assessed->variance, $kpi),
            ZonesView::of($assessed->zones(), $kpi->measurement->definition->polarity),
            $average === null ? null : (string) $average,
            $kpi->provisional($assessed->figures->reported),
        );
    }
}
