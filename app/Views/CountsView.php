<?php

declare(strict_types=1);

namespace App\Views;

use Kybernet\Core\Status\Counts;
use OpenApi\Attributes as OA;

#[OA\Schema(schema: 'Counts', description: 'How many KPIs have each status.')]
final readonly class CountsView
{
    private function __construct(
        #[OA\Property] public int $judged,
        #[OA\Property] public int $green,
        #[OA\Property] public int $amber,
        #[OA\Property] public int $red,
        #[OA\Property] public int $notJudged,
        #[OA\Property] public int $noData,
    ) {}

    public static function of(Counts $counts): self
    {
        return new self($counts->judged(), $counts->green, $counts->amber, $counts->red, $counts->notJudged, $counts->noData);
    }
}
