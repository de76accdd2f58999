<?php

declare(strict_types=1);

namespace App\Views;

use Kybernet\Core\Status\Polarity;
use Kybernet\Core\Status\Zones;
use OpenApi\Attributes as OA;

#[OA\Schema(schema: 'Zones', description: 'Where green and amber end, in the measure of the KPI.')]
final readonly class ZonesView
{
    public function __construct(
        #[OA\Property(description: 'green lies above green, red below amber; the other way round when false')]
        public bool $higherIsBetter,
        #[OA\Property] public string $green,
        #[OA\Property] public string $amber,
        #[OA\Property(description: 'of a band: where green begins; green and amber are then its upper ends')] public ?string $greenLow,
        #[OA\Property(description: 'of a band: where amber begins')] public ?string $amberLow,
    ) {}

    public static function of(?Zones $zones, Polarity $polarity): ?self
    {
        return $zones === null ? null : new self(
            $polarity === Polarity::Higher,
            (string) $zones->green,
            (string) $zones->amber,
            $zones->greenBand === null ? null : (string) $zones->greenBand->low,
            $zones->amberBand === null ? null : (string) $zones->amberBand->low,
        );
    }
}
