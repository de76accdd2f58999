<?php

declare(strict_types=1);

namespace App\Sources\Views;

use App\Views\StatusSchema;
use OpenApi\Attributes as OA;

#[OA\Schema(schema: 'PreviewMonth', description: 'A period as it would be counted.')]
final readonly class PreviewMonth
{
    public function __construct(
        #[OA\Property] public string $period,
        #[OA\Property(description: 'plain, with the decimals of the KPI')] public ?string $actual,
        #[OA\Property] public int $records,
        #[OA\Property] public int $met,
        #[OA\Property(ref: StatusSchema::REF)] public string $status,
        #[OA\Property(description: 'what stands there now')] public ?string $stands,
        #[OA\Property] public ?string $target,
    ) {}
}
