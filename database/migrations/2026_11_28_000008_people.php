<?php

declare(strict_types=1);

use Illuminate\Database\Migrations\Migration;
use Illuminate\Database\Schema\Blueprint;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Facades\Schema;

/**
 * People who are invited, and let in again, by a link that works once. Who may do what comes into the trail; passwords do not.
 */
return new class extends Migration
{
    private const EVENTS = [
        'INSERT' => 'NEW TABLE AS new_rows',
        'UPDATE' => 'OLD TABLE AS old_rows NEW TABLE AS new_rows',
        'DELETE' => 'OLD TABLE AS old_rows',
    ];

    private const PASSING = "''alive_at'']";

    private const PASSING_MORE = "''alive_at'', ''password'', ''remember_token'', ''seen_at'', ''joined_at'', ''locale'']";

    public function up(): void
    {
        Schema::table('users', function (Blueprint $table): void {
            // When they chose a password; before that they are invited.
            $table->timestampTz('joined_at')->nullable();
            $table->timestampTz('seen_at')->nullable();
        });
        DB::statement('UPDATE users SET joined_at = coalesce(created_at, now())');
        Schema::create('entry_links', function (Blueprint $table): void {
            // One a person: a newer one takes the place of the one before.
            $table->foreignId('user_id')->primary()->constrained('users')->cascadeOnDelete();
            $table->char('hash', 64)->unique();
            $table->timestampTz('until');
        });
        $this->rewrite(self::PASSING, self::PASSING_MORE);
        foreach (self::EVENTS as $event => $rows) {
            DB::statement('CREATE TRIGGER users_audit_'.strtolower($event)." AFTER {$event} ON users REFERENCING {$rows} FOR EACH STATEMENT EXECUTE FUNCTION kybernet_audit('id')");
        }
    }

    public function down(): void
    {
        foreach (array_keys(self::EVENTS) as $event) {
            DB::statement('DROP TRIGGER users_audit_'.strtolower($event).' ON users');
        }
        $this->rewrite(self::PASSING_MORE, self::PASSING);
        Schema::drop('entry_links');
        Schema::table('users', fn (Blueprint $table) => $table->dropColumn(['joined_at', 'seen_at']));
    }

    private function rewrite(string $from, string $to): void
    {
        $text = DB::scalar("SELECT pg_get_functiondef('kybernet_audit'::regproc)");
        if (! is_string($text) || ! str_contains($text, $from)) {
            throw new LogicException("kybernet_audit does not say: {$from}");
        }
        DB::unprepared(str_replace($from, $to, $text));
    }
};
