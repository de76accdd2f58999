<?php

declare(strict_types=1);

namespace App\Review\Views;

use Kybernet\Core\Compare\Standing;
use OpenApi\Attributes as OA;

#[OA\Schema(schema: 'Standing', description: 'Where a unit lies among those of its kind.')]
final readonly class StandingView
{
    private function __construct(
        #[OA\Property(description: 'how many have a figure')] public int $of,
        #[OA\Property(description: '1 for the best; ties share the better rank')] public int $rank,
        #[OA\Property(description: 'how many share the rank')] public int $sharing,
        #[OA\Property(enum: ['best', 'worst', ''])] public string $tenth,
        #[OA\Property(description: 'lower quartile of the figures; null for a band, as are median and upper quartile')] public ?float $low,
        #[OA\Property] public ?float $median,
        #[OA\Property] public ?float $high,
        #[OA\Property(description: 'how many have a target or a band')] public int $aiming,
        #[OA\Property(description: 'how many of those meet it')] public int $meeting,
    ) {}

    public static function of(Standing $standing): self
    {
        return new self(
            count($standing->ranks),
            $standing->rank,
            count(array_keys($standing->ranks, $standing->rank, true)),
            match (true) {
                $standing->inWorstTenth => 'worst',
                $standing->inBestTenth => 'best',
                default => '',
            },
            $standing->quartiles[0] ?? null,
            $standing->quartiles[1] ?? null,
            $standing->quartiles[2] ?? null,
            $standing->aiming,
            $standing->meeting,
        );
    }
}
