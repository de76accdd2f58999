<?php

declare(strict_types=1);

namespace App\Sources\Views;

use OpenApi\Attributes as OA;

#[OA\Schema(schema: 'CaseBin', description: 'How many cases lie from here on, up to the next.')]
final readonly class CaseBin
{
    public function __construct(#[OA\Property] public string $from, #[OA\Property] public string $to, #[OA\Property] public int $cases) {}
}
