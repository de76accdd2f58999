<?php

declare(strict_types=1);

namespace App\Organisation\Views;

use OpenApi\Attributes as OA;

#[OA\Schema(schema: 'AnsweringPerson', description: 'Who answers for a unit.')]
final readonly class AnsweringPerson
{
    public function __construct(
        #[OA\Property] public string $name,
        #[OA\Property(description: 'in words')] public string $role,
        #[OA\Property(description: 'name of the unit above for which they have it; null where it is this one')] public ?string $through,
    ) {}
}
