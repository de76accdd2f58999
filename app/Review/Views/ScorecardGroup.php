<?php

declare(strict_types=1);

namespace App\Review\Views;

use App\Views\StatusSchema;
use OpenApi\Attributes as OA;

#[OA\Schema(description: 'Rows that belong together: a theme of the unit, or a unit below it.')]
final readonly class ScorecardGroup
{
    /** @param  list<ScorecardRow>  $rows */
    public function __construct(
        #[OA\Property] public string $name,
        #[OA\Property(description: 'code of the unit that the group is, null for a theme')] public ?string $unit,
        #[OA\Property(ref: StatusSchema::REF)] public string $status,
        #[OA\Property] public Moved $moved,
        #[OA\Property(items: new OA\Items(ref: '#/components/schemas/ScorecardRow'))] public array $rows,
    ) {}
}
