<?php

declare(strict_types=1);

namespace App\Review;

use App\Models\Action;
use App\Models\User;
use App\Organisation\Rights;
use Illuminate\Auth\Access\Response;

final readonly class ActionPolicy
{
    public function __construct(private Rights $rights) {}

    /** Change it, finish it, drop it: whoever enters the figures it is about. */
    public function follow(User $user, Action $action): Response
    {
        [$unit, $owner] = [$action->measurement->unit_id, $action->measurement->owner_id];

        return match (true) {
            $this->rights->mayLog($user, $unit, $owner) => Response::allow(),
            $this->rights->maySee($user, $unit, $owner) => Response::deny(),
            default => Response::denyAsNotFound(),
        };
    }
}
