<?php

declare(strict_types=1);

namespace App\Support;

use Illuminate\Database\Connection;
use Illuminate\Database\Migrations\Migrator;
use Throwable;

/**
 * Whether the installation can do its work: what a load balancer asks before it sends people here, and what whoever runs
 * it is told.
 */
final readonly class Readiness
{
    /** Work that waits longer than this is not being done. */
    private const OLDEST_JOB_SECONDS = 300;

    private const LEAST_FREE_BYTES = 200_000_000;

    public function __construct(private Connection $database, private Migrator $migrator) {}

    /** @return list<Finding> */
    public function findings(): array
    {
        $database = $this->database();

        return $database->isWell ? [$database, $this->migrations(), $this->queue(), $this->disk()] : [$database, $this->disk()];
    }

    private function database(): Finding
    {
        try {
            $this->database->select('SELECT 1');

            return new Finding('database', true, 'the database answers');
        } catch (Throwable $away) {
            return new Finding('database', false, 'the database does not answer', 'Look whether it runs, and whether DB_HOST, DB_PORT and the password are right.');
        }
    }

    private function migrations(): Finding
    {
        $waiting = array_diff(array_keys($this->migrator->getMigrationFiles([database_path('migrations')])), $this->migrator->getRepository()->getRan());

        return $waiting === []
            ? new Finding('migrations', true, 'the database is of this version')
            : new Finding('migrations', false, 'the database is of an older version', 'Run: bin/kybernet migrate --force, or bin/start, which does it.');
    }

    private function queue(): Finding
    {
        $age = $this->database->scalar('SELECT extract(epoch FROM now())::bigint - min(available_at) FROM jobs WHERE reserved_at IS NULL');
        $age = is_int($age) ? $age : 0;

        return $age <= self::OLDEST_JOB_SECONDS
            ? new Finding('queue', true, 'work in the background is being done')
            : new Finding('queue', false, "work in the background has been waiting for {$age} seconds", 'Look whether a worker runs: artisan queue:work.');
    }

    private function disk(): Finding
    {
        $free = disk_free_space(storage_path());

        return $free === false || $free >= self::LEAST_FREE_BYTES
            ? new Finding('disk', true, 'there is room on the disk')
            : new Finding('disk', false, 'the disk is nearly full: '.intdiv((int) $free, 1_000_000).' MB are left', 'Make room: figures cannot be kept on a full disk.');
    }
}
