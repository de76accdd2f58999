<?php

declare(strict_types=1);

namespace App\Review\Views;

use App\Views\CountsView;
use App\Views\StatusSchema;
use OpenApi\Attributes as OA;

#[OA\Schema(description: 'A unit below the one shown, told in one line.')]
final readonly class UnitLine
{
    public function __construct(
        #[OA\Property] public string $code,
        #[OA\Property] public string $name,
        #[OA\Property] public string $kind,
        #[OA\Property(ref: StatusSchema::REF)] public string $status,
        #[OA\Property] public CountsView $counts,
        #[OA\Property] public Moved $moved,
        #[OA\Property(description: 'identity of its own KPI that lies furthest off course; null where none is judged, and in a unit whose rows are not shown')] public ?int $worst,
    ) {}
}
