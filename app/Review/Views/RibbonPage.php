<?php

declare(strict_types=1);

namespace App\Review\Views;

use OpenApi\Attributes as OA;

#[OA\Schema(description: 'The year ribbon: the months of the financial year, and what waits in the chosen one.')]
final readonly class RibbonPage
{
    /** @param  list<RibbonMonth>  $months */
    public function __construct(
        #[OA\Property(description: 'the financial year, 2026/27')] public string $year,
        #[OA\Property(items: new OA\Items(ref: '#/components/schemas/RibbonMonth'))] public array $months,
        #[OA\Property(description: 'readings of the chosen month that this user is still to enter')] public int $open,
        #[OA\Property(description: 'what deserves attention in the chosen month, and this user has not seen')] public int $exceptions,
    ) {}
}
