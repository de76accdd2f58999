<?php

declare(strict_types=1);

use App\Support\AuditFunction;
use Illuminate\Database\Migrations\Migration;
use Illuminate\Database\Schema\Blueprint;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Facades\Schema;

/** What an organisation sets for itself, and the tokens with which programs come. */
return new class extends Migration
{
    private const PASSING = "''second_factor_step'']";

    private const PASSING_MORE = "''second_factor_step'', ''asked_at'', ''hash'', ''used_at'', ''link_hash'', ''link_until'', ''is_settled'']";

    private const DEFAULTS = '{"green": "0", "amber": "5", "dueDay": null, "noteRequired": false, "materiality": "", "texts": {"green": "", "amber": "", "red": ""}}';

    public function up(): void
    {
        Schema::table('installation', function (Blueprint $table): void {
            $table->boolean('needs_second_factor')->default(false);
            $table->smallInteger('session_hours')->default(10);
            // Who may call a status other than it was computed.
            $table->string('callers', 12)->default('head');
            // What a new KPI begins with.
            $table->jsonb('kpi_defaults')->default(self::DEFAULTS);
            $table->integer('version')->default(1);
        });
        DB::statement("ALTER TABLE installation ADD CONSTRAINT installation_hours_check CHECK (session_hours BETWEEN 1 AND 720), ADD CONSTRAINT installation_callers_check CHECK (callers IN ('analyst', 'head', 'nobody'))");
        Schema::table('users', function (Blueprint $table): void {
            // When they asked for a new password and could not be written to: an administrator hands over the link.
            $table->timestampTz('asked_at')->nullable();
        });
        Schema::table('users', function (Blueprint $table): void {
            // The account as which a program acts: nobody signs in with it.
            $table->boolean('is_program')->default(false);
        });
        Schema::create('tokens', function (Blueprint $table): void {
            $table->id();
            $table->foreignId('user_id')->unique()->constrained('users')->cascadeOnDelete();
            $table->char('hash', 64)->unique();
            // The last day on which it is taken.
            $table->date('until');
            $table->foreignId('made_by')->nullable()->constrained('users')->nullOnDelete();
            $table->timestampTz('created_at')->useCurrent();
            $table->timestampTz('used_at')->nullable();
            $table->timestampTz('revoked_at')->nullable();
        });
        // Only the owner of the database says what is a demonstration: what is one may be put away as a whole.
        DB::unprepared(<<<'SQL'
            CREATE FUNCTION kybernet_demonstration() RETURNS trigger LANGUAGE plpgsql AS $$
            BEGIN
                IF NEW.is_demonstration AND NOT OLD.is_demonstration AND NOT pg_has_role(session_user, (SELECT tableowner FROM pg_tables WHERE tablename = 'installation' AND schemaname = 'public'), 'MEMBER') THEN
                    RAISE EXCEPTION 'What is no demonstration never becomes one.';
                END IF;
                RETURN NEW;
            END $$;
            CREATE TRIGGER installation_demonstration BEFORE UPDATE ON installation FOR EACH ROW EXECUTE FUNCTION kybernet_demonstration();
            CREATE FUNCTION kybernet_leave_demonstration() RETURNS void LANGUAGE plpgsql SECURITY DEFINER SET search_path TO 'public', 'pg_temp' AS $$
            BEGIN
                PERFORM 1 FROM installation WHERE is_demonstration FOR UPDATE;
                IF NOT FOUND THEN
                    RAISE EXCEPTION 'Only a demonstration is put away.';
                END IF;
                PERFORM set_config('kybernet.audit', 'off', true);
                TRUNCATE units, users, kpis, objectives, themes, audit_entries, sessions, jobs, failed_jobs CASCADE;
                UPDATE installation SET is_demonstration = false, is_own = true, is_settled = false;
                PERFORM set_config('kybernet.audit', 'on', true);
            END $$;
            SQL);
        AuditFunction::rewrite(self::PASSING, self::PASSING_MORE);
        AuditFunction::watch('tokens');
        AuditFunction::watch('installation', 'one');
    }

    public function down(): void
    {
        AuditFunction::rewrite(self::PASSING_MORE, self::PASSING);
        foreach (['insert', 'update', 'delete'] as $event) {
            DB::statement("DROP TRIGGER installation_audit_{$event} ON installation");
        }
        DB::unprepared('DROP TRIGGER installation_demonstration ON installation; DROP FUNCTION kybernet_demonstration(); DROP FUNCTION kybernet_leave_demonstration();');
        Schema::drop('tokens');
        Schema::table('users', fn (Blueprint $table) => $table->dropColumn(['asked_at', 'is_program']));
        Schema::table('installation', fn (Blueprint $table) => $table->dropColumn(['needs_second_factor', 'session_hours', 'callers', 'kpi_defaults', 'version']));
    }
};
