<?php

declare(strict_types=1);

namespace App\Briefings\Views;

use App\Views\Shown;
use App\Views\StatusSchema;
use OpenApi\Attributes as OA;

#[OA\Schema(description: 'A unit on a map.')]
final readonly class MapRegion
{
    /** @param  array<mixed>|null  $shape */
    public function __construct(
        #[OA\Property(description: 'code of the unit')] public string $unit,
        #[OA\Property] public string $name,
        #[OA\Property(ref: StatusSchema::REF)] public string $status,
        #[OA\Property] public ?Shown $actual,
        #[OA\Property] public string $instead,
        #[OA\Property(description: 'a Polygon or MultiPolygon of RFC 7946; null where nobody has said what it looks like', type: 'object', nullable: true)] public ?array $shape,
    ) {}
}
