<?php

declare(strict_types=1);

namespace App\Review\Views;

use OpenApi\Attributes as OA;

#[OA\Schema(description: 'A KPI that is back on course.')]
final readonly class GoodNews
{
    public function __construct(
        #[OA\Property(description: 'identity of the KPI in this unit')] public int $id,
        #[OA\Property] public string $code,
        #[OA\Property] public string $name,
        #[OA\Property(description: 'code of the unit')] public string $unit,
        #[OA\Property] public string $text,
    ) {}
}
