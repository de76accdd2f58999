<?php

declare(strict_types=1);

namespace App\Policies;

use App\Figures\Organisation;
use App\Models\Role;
use App\Models\User;

/**
 * Whose figures a person may enter.
 */
final readonly class WritingRights
{
    public function __construct(private Organisation $organisation) {}

    public function mayLog(User $user, int $unitId, ?int $ownerId): bool
    {
        return match ($user->role) {
            Role::Analyst => true,
            Role::Owner => $ownerId === $user->id,
            Role::Head => in_array($unitId, $this->organisation->below($user->unit_id), true),
            Role::Executive => false,
        };
    }
}
