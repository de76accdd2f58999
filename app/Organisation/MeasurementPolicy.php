<?php

declare(strict_types=1);

namespace App\Organisation;

use App\Models\Measurement;
use App\Models\User;
use Illuminate\Auth\Access\Response;

final readonly class MeasurementPolicy
{
    public function __construct(private Rights $rights) {}

    public function view(User $user, Measurement $measurement): Response
    {
        // What somebody may not see is told as what is not there.
        return $this->rights->maySee($user, $measurement->unit_id, $measurement->owner_id) ? Response::allow() : Response::denyAsNotFound();
    }

    /** Enter its readings and write its notes. */
    public function log(User $user, Measurement $measurement): Response
    {
        $sight = $this->view($user, $measurement);

        return $sight->denied() || $this->rights->mayLog($user, $measurement->unit_id, $measurement->owner_id) ? $sight : Response::deny();
    }

    /** Call a status other than it was computed: who answers for the figure, not who enters it. */
    public function call(User $user, Measurement $measurement): Response
    {
        $sight = $this->view($user, $measurement);

        return $sight->denied() || $this->rights->mayCall($user, $measurement->unit_id) ? $sight : Response::deny();
    }
}
