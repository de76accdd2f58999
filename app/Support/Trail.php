<?php

declare(strict_types=1);

namespace App\Support;

use Closure;
use Illuminate\Database\Connection;

/**
 * Tells the database who acts and why; its triggers write the trail of changes.
 * Which ones, docs/architecture.md says under Hidden hops.
 */
final readonly class Trail
{
    public function __construct(private Connection $database) {}

    /** For the rest of this request; null for nobody. */
    public function actsAs(?int $user): void
    {
        $this->database->select("SELECT set_config('kybernet.user', ?, false), set_config('kybernet.standing_for', '', false)", [(string) $user]);
    }

    /** Whoever acts does so because they stand in for somebody: both are named, for the rest of this request. */
    public function standsInFor(int $user): void
    {
        $this->database->select("SELECT set_config('kybernet.standing_for', ?, false)", [(string) $user]);
    }

    /**
     * Runs the work in one transaction; what it changes carries the batch and the reason.
     *
     * @template Result
     *
     * @param  Closure(): Result  $work
     * @return Result
     */
    public function within(string $batch, string $reason, Closure $work): mixed
    {
        return $this->database->transaction(function () use ($batch, $reason, $work): mixed {
            $this->set($batch, $reason);
            $result = $work();
            $this->set('', '');

            return $result;
        });
    }

    /**
     * Runs work that writes no trail: loading a demonstration, or putting a workbook in the place of everything.
     *
     * @param  Closure(): void  $work
     */
    public function silently(Closure $work): void
    {
        $this->database->transaction(function () use ($work): void {
            $this->database->select("SELECT set_config('kybernet.audit', 'off', true)");
            $work();
            $this->database->select("SELECT set_config('kybernet.audit', 'on', true)");
        });
    }

    private function set(string $batch, string $reason): void
    {
        $this->database->select("SELECT set_config('kybernet.batch', ?, true), set_config('kybernet.reason', ?, true)", [$batch, $reason]);
    }
}
