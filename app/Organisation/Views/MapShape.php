<?php

declare(strict_types=1);

namespace App\Organisation\Views;

use OpenApi\Attributes as OA;

#[OA\Schema(schema: 'MapShape', description: 'What a unit looks like on a map.')]
final readonly class MapShape
{
    public function __construct(
        #[OA\Property] public string $code,
        #[OA\Property] public string $name,
        #[OA\Property(description: 'a Polygon or MultiPolygon of RFC 7946, as text')] public string $shape,
    ) {}
}
