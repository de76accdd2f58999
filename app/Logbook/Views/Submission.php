<?php

declare(strict_types=1);

namespace App\Logbook\Views;

use OpenApi\Attributes as OA;

#[OA\Schema(description: 'What became of handing in a month.')]
final readonly class Submission
{
    /** @param  list<string>  $unexplained */
    public function __construct(
        #[OA\Property(description: 'readings that are handed in now')] public int $submitted,
        #[OA\Property(description: 'readings that are still missing')] public int $open,
        #[OA\Property(items: new OA\Items(type: 'string'), description: 'KPIs whose colour must be explained first; nothing is handed in while there is one')]
        public array $unexplained,
    ) {}
}
