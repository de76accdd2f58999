<?php

declare(strict_types=1);

namespace App\Briefings\Views;

use OpenApi\Attributes as OA;

#[OA\Schema(schema: 'Picture')]
final readonly class PictureView
{
    public function __construct(
        #[OA\Property(description: 'the picture itself, as an address that holds it')] public string $source,
        #[OA\Property] public int $width,
        #[OA\Property] public int $height,
    ) {}
}
