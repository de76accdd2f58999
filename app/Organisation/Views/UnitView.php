<?php

declare(strict_types=1);

namespace App\Organisation\Views;

use OpenApi\Attributes as OA;

#[OA\Schema(schema: 'Unit', description: 'A part of the organisation.')]
final readonly class UnitView
{
    public function __construct(
        #[OA\Property] public string $code,
        #[OA\Property] public string $name,
        #[OA\Property] public string $kind,
        #[OA\Property(description: 'code of the unit above')] public ?string $parent,
        #[OA\Property(description: 'what it is called where names are masked, after its kind: the same on every page and in files')] public string $letter,
    ) {}
}
