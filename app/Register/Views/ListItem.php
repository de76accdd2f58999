<?php

declare(strict_types=1);

namespace App\Register\Views;

use OpenApi\Attributes as OA;

#[OA\Schema(description: 'A theme, or an objective.', required: ['id', 'code', 'name', 'kpis'])]
final readonly class ListItem
{
    public function __construct(
        #[OA\Property(description: 'null for a new one')] public ?int $id,
        #[OA\Property(description: 'of an objective; blank for a theme')] public string $code,
        #[OA\Property] public string $name,
        #[OA\Property(description: 'how many KPIs have it')] public int $kpis,
    ) {}
}
