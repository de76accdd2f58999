<?php

declare(strict_types=1);

namespace App\Register\Views;

use Kybernet\Core\Measure\Accumulation;
use Kybernet\Core\Status\Deviation;
use Kybernet\Core\Status\Polarity;
use Kybernet\Core\Status\Reference;
use OpenApi\Attributes as OA;

#[OA\Schema(description: 'What a KPI can be compared with, and how the difference is measured then.')]
final readonly class Pairing
{
    /** @param  list<string>  $measures */
    private function __construct(
        #[OA\Property(enum: Polarity::class)] public string $polarity,
        #[OA\Property(enum: Accumulation::class)] public string $accumulation,
        #[OA\Property(enum: Reference::class)] public string $reference,
        #[OA\Property(items: new OA\Items(type: 'string', enum: Deviation::class))] public array $measures,
    ) {}

    /** @return list<self> all there are */
    public static function all(): array
    {
        return array_map(fn (array $pairing): self => new self(
            $pairing[0]->value,
            $pairing[1]->value,
            $pairing[2]->value,
            array_map(fn (Deviation $measure): string => $measure->value, $pairing[3]),
        ), Reference::pairings());
    }
}
