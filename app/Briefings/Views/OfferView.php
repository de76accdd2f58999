<?php

declare(strict_types=1);

namespace App\Briefings\Views;

use OpenApi\Attributes as OA;

#[OA\Schema(schema: 'PieceOffer')]
final readonly class OfferView
{
    public function __construct(
        #[OA\Property(description: 'what `of` of the piece says')] public string $of,
        #[OA\Property] public string $name,
    ) {}
}
