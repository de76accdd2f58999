<?php

declare(strict_types=1);

namespace App\Policies;

use App\Models\KpiUnit;
use App\Models\Role;
use App\Models\User;

final readonly class KpiUnitPolicy
{
    public function __construct(private Rights $rights) {}

    public function view(User $user, KpiUnit $measured): bool
    {
        return $this->rights->maySee($user, $measured->unit_id, $measured->owner_id);
    }

    /** Enter its readings and write its notes. */
    public function log(User $user, KpiUnit $measured): bool
    {
        return $this->rights->mayLog($user, $measured->unit_id, $measured->owner_id);
    }

    /** Call a status other than it was computed: who answers for the figure, not who enters it. */
    public function call(User $user, KpiUnit $measured): bool
    {
        return $user->role === Role::Analyst || ($user->role === Role::Head && $this->view($user, $measured));
    }
}
