<?php

declare(strict_types=1);

namespace App\Organisation;

use App\Models\Unit;
use App\Models\User;
use Illuminate\Auth\Access\Response;

final readonly class UnitPolicy
{
    public function __construct(private Rights $rights) {}

    public function view(User $user, Unit $unit): Response
    {
        // What somebody may not see is told as what is not there.
        return in_array($unit->id, $this->rights->units($user), true) ? Response::allow() : Response::denyAsNotFound();
    }

    /** What the unit is and who answers for it: whoever sees its pages, and who sees to the tree. */
    public function know(User $user, Unit $unit): Response
    {
        return $this->rights->administers($user) ? Response::allow() : $this->view($user, $unit);
    }

    /** Enter figures in the unit and below it: which ones, each cell says for itself. */
    public function log(User $user, Unit $unit): Response
    {
        $sight = $this->view($user, $unit);

        return $sight->denied() || $this->rights->logs($user) ? $sight : Response::deny();
    }

    /** Make, change and take away units. */
    public function administer(User $user): bool
    {
        return $this->rights->administers($user);
    }

    /** Close its months, and reopen them with a reason. */
    public function close(User $user, Unit $unit): Response
    {
        $sight = $this->view($user, $unit);

        return $sight->denied() || $this->rights->analyses($user, $unit->id) ? $sight : Response::deny();
    }
}
