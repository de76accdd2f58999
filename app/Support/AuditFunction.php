<?php

declare(strict_types=1);

namespace App\Support;

use Illuminate\Support\Facades\DB;
use LogicException;

/**
 * The database's function that writes the trail, for migrations: what it says is changed in place, so that what former
 * migrations gave it stays.
 */
final class AuditFunction
{
    private const EVENTS = [
        'INSERT' => 'NEW TABLE AS new_rows',
        'UPDATE' => 'OLD TABLE AS old_rows NEW TABLE AS new_rows',
        'DELETE' => 'OLD TABLE AS old_rows',
    ];

    public static function rewrite(string $from, string $to): void
    {
        $text = DB::scalar("SELECT pg_get_functiondef('kybernet_audit'::regproc)");
        if (! is_string($text) || ! str_contains($text, $from)) {
            throw new LogicException("kybernet_audit does not say: {$from}");
        }
        DB::unprepared(str_replace($from, $to, $text));
    }

    /** From now on what changes in the table stands in the trail. */
    public static function watch(string $table, string $key = 'id'): void
    {
        foreach (self::EVENTS as $event => $rows) {
            DB::statement("CREATE TRIGGER {$table}_audit_".strtolower($event)." AFTER {$event} ON {$table} REFERENCING {$rows} FOR EACH STATEMENT EXECUTE FUNCTION kybernet_audit('{$key}')");
        }
    }
}
