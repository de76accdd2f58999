<?php

declare(strict_types=1);

namespace App\Import;

use App\Models\Import;
use App\Models\User;
use App\Organisation\Rights;
use Illuminate\Auth\Access\Response;

final readonly class ImportPolicy
{
    public function __construct(private Rights $rights) {}

    /** Look at it, apply it, undo it: whoever sent it, and whoever does an analyst's work for its unit. */
    public function handle(User $user, Import $import): Response
    {
        return $import->user_id === $user->id || ($import->unit_id === null ? $this->rights->analysesAll($user) : $this->rights->analyses($user, $import->unit_id)) ? Response::allow() : Response::denyAsNotFound();
    }
}
