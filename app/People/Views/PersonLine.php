<?php

declare(strict_types=1);

namespace App\People\Views;

use App\Models\Role;
use App\Models\User;
use Carbon\CarbonImmutable;
use OpenApi\Attributes as OA;

#[OA\Schema(description: 'Somebody with an account, or invited to have one.')]
final readonly class PersonLine
{
    private function __construct(
        #[OA\Property] public int $id,
        #[OA\Property] public string $name,
        #[OA\Property] public string $email,
        #[OA\Property(enum: Role::class)] public string $role,
        #[OA\Property(description: 'code of the unit where they belong')] public string $unit,
        #[OA\Property] public bool $administrator,
        #[OA\Property(enum: ['invited', 'in', 'blocked'])] public string $state,
        #[OA\Property(description: 'the moment they were seen last, ISO 8601')] public ?string $seen,
        #[OA\Property(description: 'KPIs whose figures are theirs to enter')] public int $kpis,
    ) {}

    public static function of(User $person, int $kpis): self
    {
        return new self(
            $person->id,
            $person->name,
            $person->email,
            $person->role->value,
            $person->unit->code,
            $person->is_administrator,
            match (true) {
                $person->blocked_at !== null => 'blocked',
                $person->joined_at === null => 'invited',
                default => 'in',
            },
            $person->seen_at === null ? null : CarbonImmutable::parse($person->seen_at)->utc()->toIso8601ZuluString(),
            $kpis,
        );
    }
}
