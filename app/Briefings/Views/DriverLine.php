<?php

declare(strict_types=1);

namespace App\Briefings\Views;

use App\Views\RelatedMeasurement;
use OpenApi\Attributes as OA;

#[OA\Schema(description: 'What a figure depends on, so many steps away from it.')]
final readonly class DriverLine
{
    public function __construct(
        #[OA\Property(description: '1 for what it depends on directly')] public int $depth,
        #[OA\Property] public RelatedMeasurement $kpi,
    ) {}
}
