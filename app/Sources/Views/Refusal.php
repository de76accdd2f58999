<?php

declare(strict_types=1);

namespace App\Sources\Views;

use OpenApi\Attributes as OA;

#[OA\Schema(schema: 'RecordRefusal', description: 'A record that cannot be taken.')]
final readonly class Refusal
{
    public function __construct(
        #[OA\Property] public int $line,
        #[OA\Property] public string $field,
        #[OA\Property] public string $typed,
        #[OA\Property] public string $reason,
    ) {}
}
