<?php

declare(strict_types=1);

namespace App\Register;

use App\Models\Kpi;
use App\Models\Measurement;
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

    /** Define KPIs and change their definitions: with an analyst's role for everything in which one is measured. */
    public function define(User $user, ?Kpi $kpi = null): Response
    {
        if ($kpi === null) {
            return $this->rights->analysesSomewhere($user) ? Response::allow() : Response::deny();
        }
        $sight = $this->view($user, $kpi);
        $units = $kpi->measurements->map(fn (Measurement $measurement): int => $measurement->unit_id)->all();

        return $sight->denied() || $this->rights->analyses($user, $kpi->department_id, ...$units) ? $sight : Response::deny();
    }

    /** Enter figures, somewhere: which ones, each says for itself. */
    public function write(User $user): bool
    {
        return $this->rights->logs($user);
    }

    /** Change what holds for all KPIs: objectives, themes, many definitions at once. */
    public function defineAll(User $user): bool
    {
        return $this->rights->analysesAll($user);
    }
}
