<?php

declare(strict_types=1);

namespace App\Views;

use App\Figures\MeasurementFacts;
use Kybernet\Core\Trend\Track;
use OpenApi\Attributes as OA;

#[OA\Schema(schema: 'Track', description: 'Of what is only counted: the lowest and the highest of the last 25 periods, and where the latest lies between them.')]
final readonly class TrackView
{
    public function __construct(
        #[OA\Property] public Shown $low,
        #[OA\Property] public Shown $high,
        #[OA\Property(description: 'the latest period, 0 at the lowest and 1 at the highest')] public ?float $now,
        #[OA\Property(description: 'the period before')] public ?float $before,
        #[OA\Property(description: 'a year earlier')] public ?float $prior,
    ) {}

    /** Null where there is no track. */
    public static function of(?Track $track, MeasurementFacts $kpi): ?self
    {
        [$low, $high] = [Shown::of($track?->low, $kpi), Shown::of($track?->high, $kpi)];

        return $track === null || $low === null || $high === null
            ? null
            : new self($low, $high, $track->now, $track->before, $track->prior);
    }
}
