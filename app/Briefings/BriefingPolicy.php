<?php

declare(strict_types=1);

namespace App\Briefings;

use App\Models\Briefing;
use App\Models\Unit;
use App\Models\User;
use App\Organisation\Rights;
use Illuminate\Auth\Access\Response;

/**
 * Who reads a briefing: whoever may open its unit, or only the people named; and who writes it: analysts of its unit. What
 * stands on it is decided figure by figure.
 */
final readonly class BriefingPolicy
{
    public function __construct(private Rights $rights) {}

    public function view(User $user, Briefing $briefing): Response
    {
        return $this->reads($user, $briefing) && ($briefing->retired_at === null || $this->rights->analyses($user, $briefing->unit_id)) ? Response::allow() : Response::denyAsNotFound();
    }

    public function change(User $user, Briefing $briefing): Response
    {
        return match (true) {
            ! $this->reads($user, $briefing) => Response::denyAsNotFound(),
            default => $this->rights->analyses($user, $briefing->unit_id) ? Response::allow() : Response::deny(),
        };
    }

    public function make(User $user): bool
    {
        return $this->rights->analysesSomewhere($user);
    }

    public function makeFor(User $user, Unit $unit): bool
    {
        return $this->rights->analyses($user, $unit->id);
    }

    private function reads(User $user, Briefing $briefing): bool
    {
        return $this->rights->analyses($user, $briefing->unit_id)
            || (in_array($briefing->unit_id, $this->rights->units($user), true)
                && ($briefing->audience === 'unit' || $briefing->readers()->where('users.id', $user->id)->exists()));
    }
}
