<?php

declare(strict_types=1);

namespace App\Review\Views;

use OpenApi\Attributes as OA;

#[OA\Schema(description: 'A period that is left of the year as the projection sees it.')]
final readonly class ProjectedPoint
{
    public function __construct(
        #[OA\Property] public string $period,
        #[OA\Property] public string $figure,
    ) {}
}
