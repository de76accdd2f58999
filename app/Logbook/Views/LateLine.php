<?php

declare(strict_types=1);

namespace App\Logbook\Views;

use App\Views\Shown;
use OpenApi\Attributes as OA;

#[OA\Schema(schema: 'LateLine', description: 'Records that came, or changed, after the month was closed: the figure stays until it is reopened.')]
final readonly class LateLine
{
    public function __construct(
        #[OA\Property(description: 'identity of the KPI in this unit')] public int $id,
        #[OA\Property] public string $code,
        #[OA\Property] public string $name,
        #[OA\Property(description: 'code of the unit')] public string $unitCode,
        #[OA\Property] public string $unit,
        #[OA\Property] public string $period,
        #[OA\Property(description: 'how many more there are by now; fewer below nought')] public int $records,
        #[OA\Property(description: 'what one calls several of them')] public string $noun,
        #[OA\Property] public ?Shown $stands,
        #[OA\Property(description: 'what it would be with them')] public ?Shown $would,
    ) {}
}
