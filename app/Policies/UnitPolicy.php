<?php

declare(strict_types=1);

namespace App\Policies;

use App\Models\User;

final class UnitPolicy
{
    /** Every account of the organisation reads every unit. */
    public function view(User $user): bool
    {
        return true;
    }
}
