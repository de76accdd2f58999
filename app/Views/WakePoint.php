<?php

declare(strict_types=1);

namespace App\Views;

use App\Figures\MeasurementFacts;
use Kybernet\Core\Calendar\Period;
use Kybernet\Core\Measure\Exact;
use OpenApi\Attributes as OA;

#[OA\Schema(description: 'One period of the small history line.')]
final readonly class WakePoint
{
    private const PERIODS = 13;

    public function __construct(
        #[OA\Property(description: 'in the frequency of the KPI: 2026-08, 2026-W34, FY2026-Q2')] public string $period,
        #[OA\Property] public ?string $actual,
        #[OA\Property] public ?string $target,
    ) {}

    /** @return list<self> the 13 periods that end at the latest */
    public static function upTo(MeasurementFacts $kpi, Period $latest): array
    {
        return self::between($kpi, $latest->plus(1 - self::PERIODS), $latest);
    }

    /** @return list<self> */
    public static function between(MeasurementFacts $kpi, Period $first, Period $last): array
    {
        $measurement = $kpi->measurement;

        return array_map(fn (Period $period): self => new self(
            $period->key(),
            self::written($kpi->shows($measurement->actuals->figure($period))),
            self::written($measurement->targets->goal($period)?->lower()),
        ), $first->to($last));
    }

    private static function written(?Exact $figure): ?string
    {
        return $figure === null ? null : (string) $figure;
    }
}
