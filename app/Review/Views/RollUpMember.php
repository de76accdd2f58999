<?php

declare(strict_types=1);

namespace App\Review\Views;

use App\Views\StatusSchema;
use OpenApi\Attributes as OA;

#[OA\Schema(description: 'A KPI or a unit that counts towards a roll-up.')]
final readonly class RollUpMember
{
    public function __construct(
        #[OA\Property] public string $name,
        #[OA\Property(description: 'a unit, not a KPI')] public bool $isUnit,
        #[OA\Property] public string $weight,
        #[OA\Property(ref: StatusSchema::REF)] public string $status,
    ) {}
}
