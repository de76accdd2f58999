<?php

declare(strict_types=1);

namespace App\Views;

use OpenApi\Attributes as OA;

#[OA\Schema(description: 'One period under the rule as it is and as typed.')]
final readonly class ReplayPeriod
{
    public function __construct(
        #[OA\Property(description: 'in the frequency of the KPI')] public string $period,
        #[OA\Property(ref: StatusSchema::REF)] public string $asIs,
        #[OA\Property(ref: StatusSchema::REF)] public string $asTyped,
        #[OA\Property(description: 'whether a colour changes, comes or goes')] public bool $changes,
        #[OA\Property] public ?string $actual,
        #[OA\Property] public ?string $target,
    ) {}
}
