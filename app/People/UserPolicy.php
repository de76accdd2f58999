<?php

declare(strict_types=1);

namespace App\People;

use App\Models\User;

final readonly class UserPolicy
{
    /** Invite people, change what they come to do, block them and let them in again. */
    public function administer(User $user): bool
    {
        return $user->is_administrator;
    }
}
