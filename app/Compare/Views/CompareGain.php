<?php

declare(strict_types=1);

namespace App\Compare\Views;

use App\Figures\MeasurementFacts;
use App\Views\Shown;
use Kybernet\Core\Compare\Gain;
use Kybernet\Core\Measure\Accumulation;
use OpenApi\Attributes as OA;

#[OA\Schema(description: 'What it would be worth if every unit that is worse had reached a level.')]
final readonly class CompareGain
{
    public function __construct(
        #[OA\Property(description: 'how many are worse')] public int $units,
        #[OA\Property(description: 'totals: of all of them together; otherwise the change of their plain mean')] public Shown $change,
        #[OA\Property(description: 'the same kept up to the end of the financial year; null where it does not follow')] public ?Shown $toYearEnd,
    ) {}

    public static function of(?Gain $gain, MeasurementFacts $kpi): ?self
    {
        // What a mean changes by is small beside its figures.
        $more = $kpi->measurement->definition->accumulation === Accumulation::Sum ? 0 : 1;
        $change = Shown::of($gain?->change, $kpi, $more);

        return $gain === null || $change === null ? null : new self($gain->units, $change, Shown::of($gain->toYearEnd, $kpi, $more));
    }
}
