<?php

declare(strict_types=1);

namespace App\Logbook\Views;

use OpenApi\Attributes as OA;

#[OA\Schema(description: 'A part of a figure that is the sum of some.')]
final readonly class LogbookPart
{
    public function __construct(
        #[OA\Property] public string $part,
        #[OA\Property(description: 'as this user would type it; blank where there is none')] public string $typed,
    ) {}
}
