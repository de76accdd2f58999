<?php

declare(strict_types=1);

use App\Support\AuditFunction;
use Illuminate\Database\Migrations\Migration;
use Illuminate\Database\Schema\Blueprint;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Facades\Schema;

/**
 * What people come to do, several roles for one person, each for a part of the tree; and who answers for whom in which days.
 */
return new class extends Migration
{
    private const ROLES = "'administrator', 'analyst', 'head', 'owner', 'executive', 'reader', 'auditor'";

    private const WHO = 'INSERT INTO audit_entries (user_id, batch,';

    private const WHO_FOR_WHOM = 'INSERT INTO audit_entries (user_id, standing_for_id, batch,';

    private const FIRST = 'SELECT $1, $2, $3,';

    private const FIRST_TWO = "SELECT \$1, nullif(current_setting(''kybernet.standing_for'', true), '''')::bigint, \$2, \$3,";

    private const PASSING = "''locale'']";

    private const PASSING_MORE = "''locale'', ''second_factor'', ''second_factor_since'', ''second_factor_step'']";

    public function up(): void
    {
        Schema::create('grants', function (Blueprint $table): void {
            $table->id();
            $table->foreignId('user_id')->constrained('users')->cascadeOnDelete();
            $table->string('role', 24);
            // For this unit and all below it. A workbook puts units in the place of units: it looks when it is done.
            $table->foreignId('unit_id')->index();
            $table->unique(['user_id', 'role', 'unit_id']);
        });
        DB::statement('ALTER TABLE grants ADD CONSTRAINT grants_role_check CHECK (role IN ('.self::ROLES.'))');
        DB::statement('ALTER TABLE grants ADD CONSTRAINT grants_unit_id_foreign FOREIGN KEY (unit_id) REFERENCES units (id) DEFERRABLE');
        // Analysts and executives had everything, wherever they belonged.
        DB::statement("INSERT INTO grants (user_id, role, unit_id) SELECT id, role, CASE WHEN role IN ('analyst', 'executive') THEN (SELECT id FROM units WHERE parent_id IS NULL) ELSE unit_id END FROM users ORDER BY users.id");
        DB::statement("INSERT INTO grants (user_id, role, unit_id) SELECT id, 'administrator', (SELECT id FROM units WHERE parent_id IS NULL) FROM users WHERE is_administrator ORDER BY users.id");
        Schema::create('stand_ins', function (Blueprint $table): void {
            $table->id();
            $table->foreignId('user_id')->constrained('users')->cascadeOnDelete();
            $table->foreignId('substitute_id')->index()->constrained('users')->cascadeOnDelete();
            $table->date('first_day');
            $table->date('last_day');
        });
        DB::statement('ALTER TABLE stand_ins ADD CONSTRAINT stand_ins_days_check CHECK (first_day <= last_day), ADD CONSTRAINT stand_ins_other_check CHECK (user_id <> substitute_id)');
        Schema::table('users', function (Blueprint $table): void {
            $table->dropColumn(['role', 'unit_id', 'is_administrator']);
            // Of RFC 6238, encrypted; it counts once a code of it was given, and no code counts twice.
            $table->text('second_factor')->nullable();
            $table->timestampTz('second_factor_since')->nullable();
            $table->bigInteger('second_factor_step')->default(0);
        });
        Schema::create('recovery_codes', function (Blueprint $table): void {
            $table->id();
            $table->foreignId('user_id')->index()->constrained('users')->cascadeOnDelete();
            $table->char('hash', 64);
        });
        Schema::create('sessions', function (Blueprint $table): void {
            $table->string('id')->primary();
            $table->foreignId('user_id')->nullable()->index();
            $table->string('ip_address', 45)->nullable();
            $table->text('user_agent')->nullable();
            $table->longText('payload');
            $table->integer('last_activity')->index();
        });
        Schema::create('cache', function (Blueprint $table): void {
            $table->string('key')->primary();
            $table->mediumText('value');
            $table->integer('expiration');
        });
        Schema::table('audit_entries', fn (Blueprint $table) => $table->bigInteger('standing_for_id')->nullable());
        AuditFunction::rewrite(self::WHO, self::WHO_FOR_WHOM);
        AuditFunction::rewrite(self::FIRST, self::FIRST_TWO);
        AuditFunction::rewrite(self::PASSING, self::PASSING_MORE);
        AuditFunction::watch('grants');
        AuditFunction::watch('stand_ins');
    }

    public function down(): void
    {
        AuditFunction::rewrite(self::PASSING_MORE, self::PASSING);
        AuditFunction::rewrite(self::FIRST_TWO, self::FIRST);
        AuditFunction::rewrite(self::WHO_FOR_WHOM, self::WHO);
        Schema::table('audit_entries', fn (Blueprint $table) => $table->dropColumn('standing_for_id'));
        Schema::table('users', function (Blueprint $table): void {
            $table->dropColumn(['second_factor', 'second_factor_since', 'second_factor_step']);
            $table->string('role', 24)->default('executive');
            $table->foreignId('unit_id')->nullable();
            $table->boolean('is_administrator')->default(false);
        });
        DB::statement("UPDATE users SET is_administrator = EXISTS (SELECT FROM grants WHERE user_id = users.id AND role = 'administrator')");
        DB::statement("UPDATE users SET role = first.role, unit_id = first.unit_id FROM (SELECT DISTINCT ON (user_id) user_id, role, unit_id FROM grants WHERE role IN ('analyst', 'owner', 'head', 'executive') ORDER BY user_id, id) first WHERE first.user_id = users.id");
        DB::statement('UPDATE users SET unit_id = (SELECT id FROM units WHERE parent_id IS NULL) WHERE unit_id IS NULL');
        DB::statement("ALTER TABLE users ALTER role DROP DEFAULT, ALTER unit_id SET NOT NULL, ADD CONSTRAINT users_role_check CHECK (role IN ('analyst', 'owner', 'head', 'executive')), ADD CONSTRAINT users_unit_id_foreign FOREIGN KEY (unit_id) REFERENCES units (id) DEFERRABLE");
        foreach (['cache', 'sessions', 'recovery_codes', 'stand_ins', 'grants'] as $table) {
            Schema::drop($table);
        }
    }
};
