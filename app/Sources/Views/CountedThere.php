<?php

declare(strict_types=1);

namespace App\Sources\Views;

use OpenApi\Attributes as OA;

#[OA\Schema(schema: 'CountedThere', description: 'A KPI that is counted from a set.')]
final readonly class CountedThere
{
    public function __construct(#[OA\Property] public string $code, #[OA\Property] public string $name) {}
}
