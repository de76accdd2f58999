<?php

declare(strict_types=1);

namespace App\Policies;

use App\Models\Role;
use App\Models\User;

final class KpiPolicy
{
    public function viewAny(User $user): bool
    {
        return true;
    }

    public function view(User $user): bool
    {
        return true;
    }

    /** Define KPIs and change their definitions. */
    public function define(User $user): bool
    {
        return $user->role === Role::Analyst;
    }
}
