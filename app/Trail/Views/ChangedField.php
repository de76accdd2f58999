<?php

declare(strict_types=1);

namespace App\Trail\Views;

use OpenApi\Attributes as OA;

#[OA\Schema(description: 'What one field said before and after.')]
final readonly class ChangedField
{
    public function __construct(
        #[OA\Property(description: 'in words; blank where the change has only one')] public string $field,
        #[OA\Property] public string $before,
        #[OA\Property] public string $after,
    ) {}
}
