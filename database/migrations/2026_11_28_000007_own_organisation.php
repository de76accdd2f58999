<?php

declare(strict_types=1);

use Illuminate\Database\Migrations\Migration;
use Illuminate\Database\Schema\Blueprint;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Facades\Schema;

/**
 * An organisation of one's own: who may begin it, how it writes and counts time, and who administers it. Units come into
 * the trail.
 */
return new class extends Migration
{
    private const EVENTS = [
        'INSERT' => 'NEW TABLE AS new_rows',
        'UPDATE' => 'OLD TABLE AS old_rows NEW TABLE AS new_rows',
        'DELETE' => 'OLD TABLE AS old_rows',
    ];

    private const OF_UNIT = "(known ->> ''unit_id'')::bigint";

    private const OF_UNIT_ITSELF = "(known ->> CASE WHEN \$3 = ''units'' THEN ''id'' ELSE ''unit_id'' END)::bigint";

    public function up(): void
    {
        Schema::table('installation', function (Blueprint $table): void {
            // Of the link with which an organisation is begun; nobody can begin one without it.
            $table->char('link_hash', 64)->nullable();
            $table->timestampTz('link_until')->nullable();
            // Begun, or to be begun, empty: the demonstration is not loaded.
            $table->boolean('is_own')->default(false);
            $table->string('time_zone', 64)->default('UTC');
            $table->char('currency', 3)->default('GBP');
            $table->string('locale', 12)->default('en-GB');
            // The first steps are done, or were put away.
            $table->boolean('is_settled')->default(false);
        });
        DB::table('installation')->whereExists(DB::table('units')->selectRaw('1'))->update(['is_settled' => true]);
        Schema::table('users', function (Blueprint $table): void {
            $table->boolean('is_administrator')->default(false);
        });
        // Until now analysts did what there was to administer.
        DB::table('users')->where('role', 'analyst')->update(['is_administrator' => true]);
        $this->rewrite(self::OF_UNIT, self::OF_UNIT_ITSELF);
        foreach (self::EVENTS as $event => $rows) {
            DB::statement('CREATE TRIGGER units_audit_'.strtolower($event)." AFTER {$event} ON units REFERENCING {$rows} FOR EACH STATEMENT EXECUTE FUNCTION kybernet_audit('id')");
        }
    }

    public function down(): void
    {
        foreach (array_keys(self::EVENTS) as $event) {
            DB::statement('DROP TRIGGER units_audit_'.strtolower($event).' ON units');
        }
        $this->rewrite(self::OF_UNIT_ITSELF, self::OF_UNIT);
        Schema::table('users', fn (Blueprint $table) => $table->dropColumn('is_administrator'));
        Schema::table('installation', fn (Blueprint $table) => $table->dropColumn(['link_hash', 'link_until', 'is_own', 'time_zone', 'currency', 'locale', 'is_settled']));
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
