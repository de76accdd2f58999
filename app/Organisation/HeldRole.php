<?php

declare(strict_types=1);

namespace App\Organisation;

use App\Models\Role;

/** A role that somebody has for a part of the tree: their own, or that of somebody for whom they stand in. */
final readonly class HeldRole
{
    /**
     * @param  int  $person  whose role it is
     * @param  array<int, true>  $units  of the part
     * @param  int  $head  the unit that heads it
     */
    public function __construct(public Role $role, public int $person, public array $units, public int $head) {}
}
