<?php

declare(strict_types=1);

namespace App\Compare\Views;

use OpenApi\Attributes as OA;

#[OA\Schema(description: 'The unit that stands out at the worse end again and again.')]
final readonly class RecurringUnit
{
    public function __construct(
        #[OA\Property] public string $code,
        #[OA\Property(description: 'of how many KPIs it is the last')] public int $last,
        #[OA\Property(description: 'of how many KPIs it is in the worst tenth')] public int $worst,
        #[OA\Property(description: 'in how many KPIs it is ranked')] public int $of,
    ) {}
}
