<?php

declare(strict_types=1);

namespace App\People\Views;

use OpenApi\Attributes as OA;

#[OA\Schema(schema: 'Entry', description: 'Whom a link lets in.')]
final readonly class EntryView
{
    public function __construct(
        #[OA\Property(description: 'whether the link works')] public bool $works,
        #[OA\Property(description: 'whether they come for the first time')] public bool $invited,
        #[OA\Property] public string $name,
        #[OA\Property] public string $email,
        #[OA\Property(description: 'of the organisation')] public string $organisation,
    ) {}
}
