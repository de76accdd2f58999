<?php

declare(strict_types=1);

namespace App\Sources\Views;

use OpenApi\Attributes as OA;

#[OA\Schema(schema: 'CalculatedValues', description: 'What a calculated field gives of the first records.')]
final readonly class CalculatedValues
{
    /** @param  list<string|null>  $values */
    public function __construct(
        #[OA\Property] public string $field,
        #[OA\Property(items: new OA\Items(type: 'string', nullable: true), description: 'rounded to 4 decimals')] public array $values,
        #[OA\Property(description: 'why it cannot be worked out; blank where it can')] public string $problem,
    ) {}
}
