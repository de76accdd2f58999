<?php

declare(strict_types=1);

namespace App\Compare\Views;

use OpenApi\Attributes as OA;

#[OA\Schema(description: 'One of the units that are compared.')]
final readonly class CompareUnit
{
    public function __construct(#[OA\Property] public string $code, #[OA\Property] public string $name) {}
}
