<?php

declare(strict_types=1);

namespace App\Import\Views;

use OpenApi\Attributes as OA;

#[OA\Schema(description: 'A column of the file.')]
final readonly class ImportColumn
{
    /** @param  list<string>  $sample */
    public function __construct(
        #[OA\Property] public string $head,
        #[OA\Property(enum: ['', 'kpi', 'unit', 'period', 'layer', 'actual', 'target', 'low', 'high', 'note', 'column'], description: 'what it holds; column where it is a period of its own; blank where it is left out')]
        public string $role,
        #[OA\Property(description: 'whether its head is a period')] public bool $isPeriod,
        #[OA\Property(items: new OA\Items(type: 'string'), description: 'its first cells')] public array $sample,
    ) {}
}
