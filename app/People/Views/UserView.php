<?php

declare(strict_types=1);

namespace App\People\Views;

use App\Models\Kpi;
use App\Models\Role;
use App\Models\User;
use OpenApi\Attributes as OA;

#[OA\Schema(schema: 'User', description: 'The person who is signed in.')]
final readonly class UserView
{
    private function __construct(
        #[OA\Property] public string $name,
        #[OA\Property] public string $email,
        #[OA\Property] public string $role,
        #[OA\Property(description: 'code of the unit where the person belongs')] public string $unit,
        #[OA\Property(description: 'number setting')] public string $locale,
        #[OA\Property(description: 'may change units, people and settings')] public bool $administers,
        #[OA\Property(description: 'may define KPIs')] public bool $defines,
        #[OA\Property(description: 'may enter figures')] public bool $logs,
        #[OA\Property(description: 'sees every unit and figure')] public bool $seesAll,
    ) {}

    public static function of(User $user): self
    {
        return new self($user->name, $user->email, $user->role->words(), $user->unit->code, $user->locale, $user->is_administrator, $user->can('define', Kpi::class), $user->role !== Role::Executive, in_array($user->role, [Role::Analyst, Role::Executive], true));
    }
}
