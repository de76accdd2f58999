<?php

declare(strict_types=1);

namespace App\People;

use App\Models\Role;

/** A person as an administrator wants them. */
final readonly class WantedPerson
{
    /**
     * @param  string  $email  in small letters; stays as it is for who is there already
     * @param  string  $unit  code of the unit where they belong
     */
    public function __construct(public string $email, public string $name, public Role $role, public string $unit, public bool $isAdministrator) {}
}
