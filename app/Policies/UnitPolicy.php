<?php

declare(strict_types=1);

namespace App\Policies;

use App\Models\Role;
use App\Models\Unit;
use App\Models\User;

final readonly class UnitPolicy
{
    public function __construct(private Rights $rights) {}

    public function view(User $user, Unit $unit): bool
    {
        return in_array($unit->id, $this->rights->units($user), true);
    }

    /** Enter figures in the unit and below it: which ones, each cell says for itself. */
    public function log(User $user, Unit $unit): bool
    {
        return $user->role !== Role::Executive && $this->view($user, $unit);
    }

    /** Close its months, and reopen them with a reason. */
    public function close(User $user, Unit $unit): bool
    {
        return $user->role === Role::Analyst;
    }
}
