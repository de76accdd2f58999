<?php

declare(strict_types=1);

namespace App\Review\Views;

use App\Figures\MeasurementFacts;
use App\Views\Shown;
use App\Views\StatusSchema;
use Kybernet\Core\Assessment;
use Kybernet\Core\Calendar\Period;
use OpenApi\Attributes as OA;

#[OA\Schema(description: 'One month of a KPI: its figure beside target and last year.')]
final readonly class MonthFigure
{
    private function __construct(
        #[OA\Property(description: 'a month, 2026-08')] public string $period,
        #[OA\Property(ref: StatusSchema::REF)] public string $status,
        #[OA\Property] public ?Shown $actual,
        #[OA\Property] public ?Shown $target,
        #[OA\Property] public ?Shown $prior,
    ) {}

    public static function of(MeasurementFacts $kpi, Period $month, Assessment $assessed): self
    {
        return new self(
            $month->key(),
            $assessed->status->value,
            Shown::of($assessed->figures->actual, $kpi),
            Shown::of($assessed->figures->goal?->target, $kpi),
            // Last year is shown in months that have not come yet, too.
            Shown::of($kpi->measurement->actuals->figure($month->plus(-12)) ?? $assessed->prior->figure, $kpi),
        );
    }
}
