<?php

declare(strict_types=1);

namespace App\People;

use App\Models\User;

/** A person of a list, held against who is there. */
final readonly class ListedPerson
{
    /**
     * @param  int  $line  of the list, from 1
     * @param  User|null  $there  who has the address already
     * @param  'new'|'changed'|'same'|'refused'  $what
     */
    public function __construct(public int $line, public WantedPerson $wanted, public ?User $there, public string $what, public string $problem) {}
}
