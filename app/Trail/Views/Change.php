<?php

declare(strict_types=1);

namespace App\Trail\Views;

use OpenApi\Attributes as OA;

#[OA\Schema(description: 'One change: who, when, what, from what to what.')]
final readonly class Change
{
    /** @param  list<ChangedField>  $fields */
    public function __construct(
        #[OA\Property] public int $id,
        #[OA\Property(description: 'the moment, ISO 8601')] public string $at,
        #[OA\Property(description: 'who; null where it was a command')] public ?string $by,
        #[OA\Property(description: 'for whom they stood in when they did it')] public ?string $standingFor,
        #[OA\Property(description: 'what was changed, in a word')] public string $what,
        #[OA\Property(enum: ['made', 'changed', 'removed'])] public string $how,
        #[OA\Property] public ?string $code,
        #[OA\Property(description: 'name of the KPI')] public ?string $name,
        #[OA\Property] public ?string $unit,
        #[OA\Property(description: 'what the figure is of: 2026-08, 2026-W34')] public ?string $period,
        #[OA\Property(items: new OA\Items(ref: '#/components/schemas/ChangedField'))] public array $fields,
        #[OA\Property] public ?string $reason,
        #[OA\Property(description: 'shared by what was changed together')] public ?string $batch,
    ) {}
}
