<?php

declare(strict_types=1);

namespace App\Support;

use Closure;
use Illuminate\Database\Connection;

/**
 * Reads that belong together, as the database was at one moment: a figure and its version, told apart, would let
 * somebody overwrite what they have not seen.
 */
final readonly class Snapshot
{
    public function __construct(private Connection $database) {}

    /**
     * @template Result
     *
     * @param  Closure(): Result  $read
     * @return Result
     */
    public function read(Closure $read): mixed
    {
        // Inside of a transaction that writes, what is read is what was written.
        if ($this->database->transactionLevel() > 0) {
            return $read();
        }

        return $this->database->transaction(function () use ($read): mixed {
            $this->database->statement('SET TRANSACTION ISOLATION LEVEL REPEATABLE READ READ ONLY');

            return $read();
        });
    }
}
