<?php

declare(strict_types=1);

namespace App\People\Views;

use OpenApi\Attributes as OA;

#[OA\Schema(schema: 'Duty', description: 'Something that a person answers for.')]
final readonly class DutyView
{
    public function __construct(
        #[OA\Property(description: 'of the KPI; blank for a role')] public string $code,
        #[OA\Property(description: 'a name, a role or what is to be done')] public string $what,
        #[OA\Property(description: 'name of the unit')] public string $unit,
    ) {}
}
