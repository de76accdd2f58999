<?php

declare(strict_types=1);

namespace App\People;

use App\Models\Role;

/** A person as an administrator wants them. */
final readonly class WantedPerson
{
    /**
     * @param  string  $email  in small letters; stays as it is for who is there already
     * @param  non-empty-list<array{Role, string}>  $roles  each for a unit, by its code, and all below it
     */
    public function __construct(public string $email, public string $name, public array $roles) {}
}
