<?php

declare(strict_types=1);

namespace App\People\Views;

use App\Models\Grant;
use App\Models\Role;
use OpenApi\Attributes as OA;

#[OA\Schema(schema: 'HeldRole', description: 'What somebody comes to do, for a unit and all below it.')]
final readonly class RoleView
{
    public function __construct(
        #[OA\Property(enum: Role::class)] public string $role,
        #[OA\Property(description: 'code of the unit')] public string $unit,
    ) {}

    public static function of(Grant $grant): self
    {
        return new self($grant->role->value, $grant->unit->code);
    }
}
