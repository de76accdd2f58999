<?php

declare(strict_types=1);

namespace App\People\Views;

use OpenApi\Attributes as OA;

#[OA\Schema(schema: 'StandIn', description: 'Somebody answers for somebody else from one day to another.')]
final readonly class StandInView
{
    public function __construct(
        #[OA\Property] public int $id,
        #[OA\Property] public int $person,
        #[OA\Property(description: 'who is away')] public string $away,
        #[OA\Property] public int $substitute,
        #[OA\Property(description: 'who answers')] public string $answers,
        #[OA\Property(description: 'the first day, 2026-12-01')] public string $first,
        #[OA\Property(description: 'the last day, included')] public string $last,
    ) {}
}
