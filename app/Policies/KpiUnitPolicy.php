<?php

declare(strict_types=1);

namespace App\Policies;

use App\Models\KpiUnit;
use App\Models\User;

final readonly class KpiUnitPolicy
{
    public function __construct(private WritingRights $rights) {}

    public function view(User $user, KpiUnit $measured): bool
    {
        return true;
    }

    /** Enter its readings and write its notes. */
    public function log(User $user, KpiUnit $measured): bool
    {
        return $this->rights->mayLog($user, $measured->unit_id, $measured->owner_id);
    }
}
