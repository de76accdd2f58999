<?php

declare(strict_types=1);

namespace App\Sources\Views;

use App\Views\StatusSchema;
use OpenApi\Attributes as OA;

#[OA\Schema(schema: 'GoalTried', description: 'What another goal would mean.')]
final readonly class GoalTried
{
    public function __construct(
        #[OA\Property(description: 'as this user types it')] public string $goal,
        #[OA\Property(description: 'cases that would meet it')] public int $met,
        #[OA\Property] public int $cases,
        #[OA\Property(description: 'their share, in %')] public ?string $share,
        #[OA\Property(ref: StatusSchema::REF, description: 'that the span would have')] public string $status,
        #[OA\Property(description: 'of the last periods how many would have that colour')] public int $alike,
        #[OA\Property(description: 'how many periods were looked at')] public int $periods,
    ) {}
}
