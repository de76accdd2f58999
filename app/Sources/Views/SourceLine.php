<?php

declare(strict_types=1);

namespace App\Sources\Views;

use OpenApi\Attributes as OA;

#[OA\Schema(schema: 'SourceLine', description: 'A record set in the list of all.')]
final readonly class SourceLine
{
    public function __construct(
        #[OA\Property] public string $code,
        #[OA\Property] public string $name,
        #[OA\Property(description: 'what one calls several of its records')] public string $noun,
        #[OA\Property(description: 'name of the unit whose records they are')] public string $unit,
        #[OA\Property] public int $records,
        #[OA\Property(enum: ['file', 'folder', 'address', 'query', 'sent'])] public string $way,
        #[OA\Property] public ?string $coversFrom,
        #[OA\Property] public ?string $coversTo,
        #[OA\Property(description: 'how many KPIs are counted from it')] public int $kpis,
        #[OA\Property(ref: '#/components/schemas/LoadLine', nullable: true)] public ?LoadLine $last,
        #[OA\Property] public bool $retired,
    ) {}
}
