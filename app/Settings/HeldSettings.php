<?php

declare(strict_types=1);

namespace App\Settings;

use App\Support\Conflict;
use App\Support\Installation;
use Illuminate\Database\Connection;

/** Holds what the organisation sets for itself until the transaction ends, as it was when somebody opened it. */
final readonly class HeldSettings
{
    public function __construct(private Connection $database, private Installation $installation) {}

    /**
     * @param  int  $seen  the version that was changed
     * @return int the version that it will have
     *
     * @throws Conflict where somebody else was faster
     */
    public function hold(int $seen): int
    {
        $this->database->table('installation')->lockForUpdate()->first();
        $this->installation->forget();
        if ($this->installation->version() !== $seen) {
            throw new Conflict('Somebody else changed the settings since you opened them. Yours are kept here, but not saved.', []);
        }

        return $seen + 1;
    }
}
