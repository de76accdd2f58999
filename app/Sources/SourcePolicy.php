<?php

declare(strict_types=1);

namespace App\Sources;

use App\Models\RecordSet;
use App\Models\User;
use App\Organisation\Rights;
use Illuminate\Auth\Access\Response;
use Illuminate\Database\Connection;

/**
 * Who sees the records of a set, and who changes it: analysts of the unit whose records they are; its owners see them and
 * bring them in.
 */
final readonly class SourcePolicy
{
    public function __construct(private Rights $rights, private Connection $database) {}

    public function viewAny(User $user): bool
    {
        return $this->rights->analysesSomewhere($user) || $this->database->table('record_set_owners')->where('user_id', $user->id)->exists();
    }

    public function make(User $user): bool
    {
        return $this->rights->analysesSomewhere($user);
    }

    public function view(User $user, RecordSet $set): Response
    {
        return $this->rights->analyses($user, $set->unit_id) || $this->owns($user, $set) ? Response::allow() : Response::denyAsNotFound();
    }

    public function load(User $user, RecordSet $set): Response
    {
        return $this->view($user, $set);
    }

    public function change(User $user, RecordSet $set): Response
    {
        $sight = $this->view($user, $set);

        return $sight->denied() || $this->rights->analyses($user, $set->unit_id) ? $sight : Response::deny();
    }

    /** Whether what is sensitive of its records is for this person. */
    public function sees(User $user, int $set): bool
    {
        return $this->view($user, RecordSet::query()->findOrFail($set))->allowed();
    }

    private function owns(User $user, RecordSet $set): bool
    {
        return $this->database->table('record_set_owners')->where('record_set_id', $set->id)->where('user_id', $user->id)->exists();
    }
}
