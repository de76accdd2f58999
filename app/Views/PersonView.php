<?php

declare(strict_types=1);

namespace App\Views;

use OpenApi\Attributes as OA;

#[OA\Schema(schema: 'Person', description: 'Somebody who can own figures.')]
final readonly class PersonView
{
    public function __construct(
        #[OA\Property] public int $id,
        #[OA\Property] public string $name,
    ) {}
}
