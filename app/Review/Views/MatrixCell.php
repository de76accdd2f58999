<?php

declare(strict_types=1);

namespace App\Review\Views;

use App\Views\Shown;
use App\Views\StatusSchema;
use OpenApi\Attributes as OA;

#[OA\Schema(description: 'One crossing: a KPI in a unit in a month, or the roll-up of a unit in a month.')]
final readonly class MatrixCell
{
    public function __construct(
        #[OA\Property(description: 'identity of the KPI in its unit; null for a roll-up')] public ?int $id,
        #[OA\Property(description: 'a month, 2026-08')] public string $period,
        #[OA\Property(ref: StatusSchema::REF)] public string $status,
        #[OA\Property(description: 'a person called the status')] public bool $called,
        #[OA\Property] public ?Shown $actual,
    ) {}
}
