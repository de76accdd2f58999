<?php

declare(strict_types=1);

use App\Support\AuditFunction;
use Illuminate\Database\Migrations\Migration;
use Illuminate\Database\Schema\Blueprint;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Facades\Schema;

/** What units look like on a map, who sends mail, what stands on paper, and how long things are kept. */
return new class extends Migration
{
    private const PASSING = "''retired_by'']";

    private const PASSING_MORE = "''retired_by'', ''shape'', ''bytes'', ''mail_secret'']";

    public function up(): void
    {
        Schema::create('unit_shapes', function (Blueprint $table): void {
            $table->foreignId('unit_id')->primary()->constrained('units')->cascadeOnDelete();
            // A Polygon or MultiPolygon as of RFC 7946.
            $table->jsonb('shape');
            $table->integer('points');
        });
        Schema::create('logos', function (Blueprint $table): void {
            // One row at most.
            $table->boolean('one')->primary()->default(true);
            $table->string('type', 12);
            $table->integer('width');
            $table->integer('height');
            // Base64: a picture of some kilobytes, read by itself alone.
            $table->text('bytes');
            $table->char('digest', 64);
        });
        Schema::table('installation', function (Blueprint $table): void {
            $table->string('mail_host', 253)->default('');
            $table->integer('mail_port')->default(587);
            $table->string('mail_user', 190)->default('');
            $table->text('mail_secret')->nullable();
            $table->string('mail_from', 190)->default('');
            $table->char('accent', 7)->nullable();
            // How long somebody stays signed in at most, whatever they do.
            $table->smallInteger('session_days')->default(30);
            // How many years changes stay in the trail; null for good. Never less than what the law wants here.
            $table->smallInteger('trail_years')->nullable();
            $table->smallInteger('law_years')->default(0);
        });
        Schema::table('users', fn (Blueprint $table) => $table->string('date_language', 8)->default('en-GB'));
        DB::unprepared(<<<'SQL'
            ALTER TABLE logos ADD CONSTRAINT logos_one_check CHECK (one);
            ALTER TABLE installation ADD CONSTRAINT installation_kept_check CHECK (session_days BETWEEN 1 AND 365 AND law_years BETWEEN 0 AND 99 AND (trail_years IS NULL OR trail_years BETWEEN greatest(1, law_years) AND 99));
            CREATE FUNCTION kybernet_end_trail() RETURNS bigint LANGUAGE plpgsql SECURITY DEFINER SET search_path TO 'public', 'pg_temp' AS $$
            DECLARE
                ended bigint;
                oldest timestamptz;
            BEGIN
                SELECT now() - make_interval(years => trail_years) INTO oldest FROM installation;
                IF oldest IS NULL THEN
                    RETURN 0;
                END IF;
                DELETE FROM audit_entries WHERE at < oldest;
                GET DIAGNOSTICS ended = ROW_COUNT;
                IF ended > 0 THEN
                    INSERT INTO audit_entries (subject, after) VALUES ('audit_entries', jsonb_build_object('ended', ended, 'until', oldest::date));
                END IF;
                RETURN ended;
            END $$;
            CREATE INDEX audit_entries_at_index ON audit_entries USING brin (at);
            SQL);
        AuditFunction::rewrite(self::PASSING, self::PASSING_MORE);
        AuditFunction::watch('unit_shapes', 'unit_id');
        AuditFunction::watch('logos', 'one');
    }

    public function down(): void
    {
        AuditFunction::rewrite(self::PASSING_MORE, self::PASSING);
        DB::unprepared('DROP FUNCTION kybernet_end_trail(); DROP INDEX audit_entries_at_index;');
        Schema::drop('unit_shapes');
        Schema::drop('logos');
        Schema::table('users', fn (Blueprint $table) => $table->dropColumn('date_language'));
        Schema::table('installation', fn (Blueprint $table) => $table->dropColumn(['mail_host', 'mail_port', 'mail_user', 'mail_secret', 'mail_from', 'accent', 'session_days', 'trail_years', 'law_years']));
    }
};
