<?php

declare(strict_types=1);

namespace App\People;

use App\Models\User;
use App\Organisation\Rights;

final readonly class UserPolicy
{
    public function __construct(private Rights $rights) {}

    /** Invite people, change what they come to do, block them and let them in again. */
    public function administer(User $user): bool
    {
        return $this->rights->administers($user);
    }

    /** Take everything out as a file. */
    public function exportAll(User $user): bool
    {
        return $this->rights->administers($user) && $this->rights->seesAll($user);
    }

    /** Say who answers for somebody while they are away: for oneself, and for everybody as an administrator. */
    public function arrange(User $user, User $person): bool
    {
        return $user->is($person) || $this->rights->administers($user);
    }
}
