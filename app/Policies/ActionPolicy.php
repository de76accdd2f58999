<?php

declare(strict_types=1);

namespace App\Policies;

use App\Models\Action;
use App\Models\User;

final readonly class ActionPolicy
{
    public function __construct(private Rights $rights) {}

    /** Change it, finish it, drop it: whoever enters the figures it is about. */
    public function follow(User $user, Action $action): bool
    {
        return $this->rights->mayLog($user, $action->measured->unit_id, $action->measured->owner_id);
    }
}
