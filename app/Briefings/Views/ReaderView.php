<?php

declare(strict_types=1);

namespace App\Briefings\Views;

use OpenApi\Attributes as OA;

#[OA\Schema(schema: 'BriefingReader')]
final readonly class ReaderView
{
    public function __construct(
        #[OA\Property] public int $id,
        #[OA\Property] public string $name,
        #[OA\Property(description: 'the page is for this person by name')] public bool $reads,
    ) {}
}
