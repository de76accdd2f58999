<?php

declare(strict_types=1);

namespace App\Settings\Views;

use OpenApi\Attributes as OA;

#[OA\Schema(schema: 'TokenLine', description: 'A program that may come.')]
final readonly class TokenLine
{
    public function __construct(
        #[OA\Property] public int $id,
        #[OA\Property] public string $name,
        #[OA\Property(description: 'name of the unit that it may see, with all below it')] public string $unit,
        #[OA\Property(description: 'whether it enters readings')] public bool $writes,
        #[OA\Property(description: 'the last day on which it is taken, 2027-11-30')] public string $until,
        #[OA\Property(description: 'who made it')] public ?string $by,
        #[OA\Property(description: 'when it came last, ISO 8601')] public ?string $used,
        #[OA\Property(enum: ['good', 'over', 'revoked'])] public string $state,
    ) {}
}
