<?php

declare(strict_types=1);

namespace App\Organisation\Views;

use OpenApi\Attributes as OA;

#[OA\Schema(schema: 'StoodBefore', description: 'How a unit stood and counted in months that are closed.')]
final readonly class StoodBefore
{
    public function __construct(
        #[OA\Property(description: 'the last month for which it did, 2026-08')] public string $until,
        #[OA\Property(description: 'name of the unit above it')] public ?string $below,
        #[OA\Property] public string $weight,
        #[OA\Property(enum: \Kybernet\Core\Status\RollUpRule::class)] public string $rollUp,
    ) {}
}
