<?php

declare(strict_types=1);

namespace App\Import;

use App\Models\Import;
use App\Models\Role;
use App\Models\User;
use Illuminate\Auth\Access\Response;

final class ImportPolicy
{
    /** Look at it, apply it, undo it: whoever sent it, and any analyst. */
    public function handle(User $user, Import $import): Response
    {
        return $import->user_id === $user->id || $user->role === Role::Analyst ? Response::allow() : Response::denyAsNotFound();
    }
}
