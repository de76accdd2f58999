<?php

declare(strict_types=1);

namespace App\Console\Concerns;

use App\Models\User;

/** Commands about somebody who has an account already. */
trait FindsPerson
{
    private function person(): ?User
    {
        $user = User::query()->whereRaw('lower(email) = ?', [mb_strtolower(strval($this->argument('email')))])->first();
        if ($user === null) {
            $this->output->getErrorStyle()->writeln('Nobody has this address.');
        }

        return $user;
    }
}
