<?php

declare(strict_types=1);

namespace App\Http\Resources;

use Kybernet\Core\Status\Polarity;
use Kybernet\Core\Status\Zones;
use OpenApi\Attributes as OA;

#[OA\Schema(schema: 'Zones', description: 'Where green and amber end, in the measure of the KPI.')]
final readonly class ZonesResource
{
    private function __construct(
        #[OA\Property(description: 'green lies above green, red below amber; the other way round when false')]
        public bool $higherIsBetter,
        #[OA\Property] public string $green,
        #[OA\Property] public string $amber,
    ) {}

    public static function of(?Zones $zones, Polarity $polarity): ?self
    {
        return $zones === null || $zones->greenBand !== null ? null : new self($polarity === Polarity::Higher, (string) $zones->green, (string) $zones->amber);
    }
}
