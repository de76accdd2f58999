<?php

declare(strict_types=1);

namespace App\Review\Views;

use Kybernet\Core\Calendar\Frequency;
use Kybernet\Core\Status\Polarity;
use OpenApi\Attributes as OA;

#[OA\Schema(description: 'How a KPI in a unit came to where it is, and where it is heading.')]
final readonly class KpiCourse
{
    /**
     * @param  list<ChartPoint>  $history
     * @param  list<ChartPoint>  $gathered
     * @param  list<ChartPoint>  $quarters
     */
    public function __construct(
        #[OA\Property] public string $code,
        #[OA\Property] public string $name,
        #[OA\Property] public string $measure,
        #[OA\Property(enum: Polarity::class)] public string $polarity,
        #[OA\Property(enum: Frequency::class)] public string $frequency,
        #[OA\Property] public string $accumulation,
        #[OA\Property(description: 'the latest period of the KPI by the chosen month')] public string $latest,
        #[OA\Property] public Headline $month,
        #[OA\Property] public Headline $yearToDate,
        #[OA\Property(items: new OA\Items(ref: '#/components/schemas/ChartPoint'), description: 'three years of single periods, up to the end of this one')]
        public array $history,
        #[OA\Property(items: new OA\Items(ref: '#/components/schemas/ChartPoint'), description: 'year to date, month by month of this year')] public array $gathered,
        #[OA\Property(items: new OA\Items(ref: '#/components/schemas/ChartPoint'), description: 'financial quarters')] public array $quarters,
        #[OA\Property] public ?TrendLine $trend,
        #[OA\Property] public ?ControlLimits $control,
        #[OA\Property(ref: '#/components/schemas/Projection')] public ?ProjectionView $projection,
    ) {}
}
