<?php

declare(strict_types=1);

namespace App\People\Views;

use OpenApi\Attributes as OA;

#[OA\Schema(schema: 'Duties', description: 'What a person answers for, and somebody else would when they leave.')]
final readonly class DutiesView
{
    /**
     * @param  list<DutyView>  $kpis
     * @param  list<DutyView>  $roles
     * @param  list<DutyView>  $actions
     */
    public function __construct(
        #[OA\Property(items: new OA\Items(ref: '#/components/schemas/Duty'), description: 'whose figures are theirs to enter')] public array $kpis,
        #[OA\Property(items: new OA\Items(ref: '#/components/schemas/Duty'))] public array $roles,
        #[OA\Property(items: new OA\Items(ref: '#/components/schemas/Duty'), description: 'open ones that name them')] public array $actions,
    ) {}
}
