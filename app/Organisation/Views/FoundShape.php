<?php

declare(strict_types=1);

namespace App\Organisation\Views;

use OpenApi\Attributes as OA;

#[OA\Schema(schema: 'FoundShape', description: 'A region of a file, and the unit that it seems to be.')]
final readonly class FoundShape
{
    /** @param  list<string>  $names */
    public function __construct(
        #[OA\Property(items: new OA\Items(type: 'string'), description: 'what the file says of it')] public array $names,
        #[OA\Property(description: 'code of the unit; null where none is called so')] public ?string $unit,
        #[OA\Property] public int $points,
        #[OA\Property(description: 'the unit has a shape already, which this one takes the place of')] public bool $replaces,
    ) {}
}
