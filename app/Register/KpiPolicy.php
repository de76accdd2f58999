<?php

declare(strict_types=1);

namespace App\Register;

use App\Models\Kpi;
use App\Models\Measurement;
use App\Models\Role;
use App\Models\User;
use App\Organisation\Rights;
use Illuminate\Auth\Access\Response;

final readonly class KpiPolicy
{
    public function __construct(private Rights $rights) {}

    public function viewAny(User $user): bool
    {
        return true;
    }

    public function view(User $user, Kpi $kpi): Response
    {
        // What somebody may not see is told as what is not there.
        return $this->rights->seesAll($user)
            || $kpi->measurements->contains(fn (Measurement $measurement): bool => $this->rights->maySee($user, $measurement->unit_id, $measurement->owner_id)) ? Response::allow() : Response::denyAsNotFound();
    }

    /** Define KPIs and change their definitions, plan targets, keep objectives and themes. */
    public function define(User $user, ?Kpi $kpi = null): Response
    {
        $sight = $kpi === null ? Response::allow() : $this->view($user, $kpi);

        return $sight->denied() || $user->role === Role::Analyst ? $sight : Response::deny();
    }
}
