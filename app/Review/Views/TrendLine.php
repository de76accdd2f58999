<?php

declare(strict_types=1);

namespace App\Review\Views;

use Kybernet\Core\Calendar\Period;
use Kybernet\Core\Trend\Direction;
use Kybernet\Core\Trend\Meaning;
use Kybernet\Core\Trend\Trend;
use OpenApi\Attributes as OA;

#[OA\Schema(description: 'The straight line through the last 12 periods, and whether chance would give it.')]
final readonly class TrendLine
{
    private function __construct(
        #[OA\Property(enum: Direction::class)] public string $direction,
        #[OA\Property(enum: Meaning::class)] public ?string $meaning,
        #[OA\Property(description: 'what it changes by from one period to the next')] public float $slope,
        #[OA\Property(description: 'how likely a slope at least as steep is by chance')] public float $p,
        #[OA\Property(description: 'how many of the 12 have a reading')] public int $readings,
        #[OA\Property(description: 'its first period')] public string $from,
        #[OA\Property(description: 'its height there')] public float $start,
        #[OA\Property(description: 'its height at the chosen period')] public float $end,
    ) {}

    public static function of(?Trend $trend, Period $latest): ?self
    {
        return $trend === null ? null : new self(
            $trend->direction->value,
            $trend->meaning?->value,
            $trend->line->slope,
            $trend->line->p,
            $trend->line->n,
            $latest->plus(1 - Trend::PERIODS)->key(),
            $trend->line->intercept + $trend->line->slope,
            $trend->line->intercept + $trend->line->slope * Trend::PERIODS,
        );
    }
}
