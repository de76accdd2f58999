<?php

declare(strict_types=1);

namespace App\Views;

use OpenApi\Attributes as OA;

#[OA\Schema(description: 'What each colour means for a KPI, in its own words; blank where nothing was written.')]
final readonly class ColourTexts
{
    private function __construct(
        #[OA\Property] public string $green,
        #[OA\Property] public string $amber,
        #[OA\Property] public string $red,
    ) {}

    /** @param  array<string, string>  $texts  by colour */
    public static function of(array $texts): self
    {
        return new self($texts['green'] ?? '', $texts['amber'] ?? '', $texts['red'] ?? '');
    }
}
