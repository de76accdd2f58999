<?php

declare(strict_types=1);

namespace App\Sources\Views;

use OpenApi\Attributes as OA;

#[OA\Schema(schema: 'UnknownName', description: 'What records give for a unit, and is none.')]
final readonly class UnknownName
{
    public function __construct(
        #[OA\Property(description: 'null where the field is empty')] public ?string $name,
        #[OA\Property] public int $records,
    ) {}
}
