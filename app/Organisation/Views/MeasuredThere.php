<?php

declare(strict_types=1);

namespace App\Organisation\Views;

use OpenApi\Attributes as OA;

#[OA\Schema(schema: 'MeasuredThere', description: 'A KPI as it is measured in one unit.')]
final readonly class MeasuredThere
{
    public function __construct(
        #[OA\Property] public string $code,
        #[OA\Property] public string $name,
        #[OA\Property(description: 'month, week, quarter or year')] public string $frequency,
        #[OA\Property(description: 'worked out from the units below')] public bool $gathered,
        #[OA\Property(description: 'who enters its figures')] public ?string $owner,
        #[OA\Property(description: 'its last month; null where it goes on')] public ?string $ends,
    ) {}
}
