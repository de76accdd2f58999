<?php

declare(strict_types=1);

use App\Support\AuditFunction;
use Illuminate\Database\Migrations\Migration;
use Illuminate\Database\Schema\Blueprint;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Facades\Schema;

/**
 * Record sets, how their records come in, and what KPIs count of them.
 *
 * The records of a set stand in a table of its own in the schema `records`, made by functions that only the owner of the
 * database may change: r<set> holds them, w<set> what loads changed, so that they can be taken back, s<load> what a load
 * brings until it is brought in.
 */
return new class extends Migration
{
    private const PASSING = "''mail_secret'']";

    private const PASSING_MORE = "''mail_secret'', ''secret'', ''records'', ''asked_next'', ''asked_state'', ''mapping'', ''path'', ''progress'', ''mark'', ''token_hash'']";

    public function up(): void
    {
        Schema::create('record_sets', function (Blueprint $table): void {
            $table->id();
            $table->string('code', 64);
            $table->string('name', 120);
            // What one calls several of them in a sentence: jobs, cases, invoices.
            $table->string('noun', 40);
            // The part of the organisation whose records they are.
            $table->foreignId('unit_id');
            $table->string('key_field', 64);
            // [{name, type, column, meaning, sensitive}] and, calculated, [{name, expression, meaning}].
            $table->jsonb('fields');
            $table->string('unit_field', 64)->nullable();
            $table->jsonb('unit_names')->default('{}');
            $table->date('covers_from')->nullable();
            $table->date('covers_to')->nullable();
            // Each load says up to when it is complete.
            $table->boolean('covers_by_loads')->default(false);
            // How they come in: file, folder, address, query or sent.
            $table->string('way', 8)->default('file');
            // What a load does: add, key or all.
            $table->string('mode', 4)->default('key');
            $table->jsonb('settings')->default('{}');
            $table->text('secret')->nullable();
            $table->string('token_hash', 64)->nullable()->unique();
            $table->jsonb('mapping')->default('{}');
            $table->timestampTz('asked_next')->nullable();
            $table->jsonb('asked_state')->default('{}');
            $table->unsignedBigInteger('records')->default(0);
            $table->unsignedInteger('version')->default(1);
            $table->timestampTz('retired_at')->nullable();
            $table->timestampsTz();
        });
        // A workbook that takes the place of everything takes units away and brings them back in one transaction.
        DB::statement('ALTER TABLE record_sets ADD CONSTRAINT record_sets_unit_id_foreign FOREIGN KEY (unit_id) REFERENCES units (id) DEFERRABLE');
        DB::statement('CREATE UNIQUE INDEX record_sets_code ON record_sets (lower(code))');
        Schema::create('record_set_owners', function (Blueprint $table): void {
            $table->foreignId('record_set_id')->constrained('record_sets')->cascadeOnDelete();
            $table->foreignId('user_id')->constrained('users')->cascadeOnDelete();
            $table->primary(['record_set_id', 'user_id']);
        });
        Schema::create('record_loads', function (Blueprint $table): void {
            $table->id();
            $table->foreignId('record_set_id')->index()->constrained('record_sets')->cascadeOnDelete();
            $table->foreignId('user_id')->nullable()->constrained('users')->nullOnDelete();
            $table->string('way', 8);
            $table->string('file', 200);
            $table->string('path', 400)->nullable();
            $table->string('sheet', 120)->default('');
            $table->string('mode', 4);
            $table->jsonb('mapping')->default('{}');
            // mapping, reading, ready, applying, applied, undoing, undone, failed
            $table->string('state', 10);
            // Whether it goes on by itself once it has been read.
            $table->boolean('is_unattended')->default(false);
            $table->unsignedInteger('turn')->default(0);
            $table->unsignedSmallInteger('tries')->default(0);
            $table->timestampTz('alive_at')->nullable();
            $table->text('problem')->default('');
            $table->unsignedBigInteger('progress')->default(0);
            $table->unsignedBigInteger('brought')->default(0);
            $table->unsignedBigInteger('added')->default(0);
            $table->unsignedBigInteger('changed')->default(0);
            $table->unsignedBigInteger('same')->default(0);
            $table->unsignedBigInteger('gone')->default(0);
            $table->unsignedBigInteger('refused')->default(0);
            $table->date('covers_to')->nullable();
            $table->date('covers_to_before')->nullable();
            // What is sent twice under one mark is taken once.
            $table->string('mark', 200)->nullable();
            $table->timestampTz('applied_at')->nullable();
            $table->timestampsTz();
            $table->unique(['record_set_id', 'mark']);
        });
        Schema::create('record_refusals', function (Blueprint $table): void {
            $table->foreignId('record_load_id')->constrained('record_loads')->cascadeOnDelete();
            $table->unsignedBigInteger('line');
            $table->string('field', 64);
            $table->string('typed', 200);
            $table->string('reason', 300);
            $table->primary(['record_load_id', 'line']);
        });
        Schema::table('kpis', function (Blueprint $table): void {
            // As a workbook has them.
            $table->jsonb('counted')->nullable();
            $table->jsonb('splits')->nullable();
            $table->jsonb('parts')->nullable();
            $table->foreignId('record_set_id')->nullable()->index()->constrained('record_sets')->restrictOnDelete();
        });
        DB::statement("ALTER TABLE kpis DROP CONSTRAINT kpis_kind_check, ADD CONSTRAINT kpis_kind_check CHECK (kind IN ('entered', 'formula', 'judged', 'records'))");
        foreach (['counted_figures', 'late_figures'] as $name) {
            Schema::create($name, function (Blueprint $table) use ($name): void {
                $table->foreignId('kpi_unit_id')->constrained('kpi_unit')->cascadeOnDelete();
                $table->date('period');
                if ($name === 'counted_figures') {
                    // The period itself, or a longer span that ends with it.
                    $table->string('span', 10);
                }
                $table->unsignedBigInteger('records');
                $table->unsignedBigInteger('empty');
                $table->unsignedBigInteger('met');
                // Exact: taken ÷ divisor.
                $table->decimal('taken')->nullable();
                $table->decimal('divisor')->default(1);
                $table->primary($name === 'late_figures' ? ['kpi_unit_id', 'period'] : ['kpi_unit_id', 'span', 'period']);
            });
            DB::statement("ALTER TABLE {$name} ALTER COLUMN taken TYPE numeric, ALTER COLUMN divisor TYPE numeric");
        }
        Schema::create('counted_kpis', function (Blueprint $table): void {
            $table->foreignId('kpi_id')->primary()->constrained('kpis')->cascadeOnDelete();
            // Of the whole set: from the first day on which a record begins to the last of any.
            $table->date('reach_from')->nullable();
            $table->date('reach_to')->nullable();
            // To be counted again by a worker, since so much changed.
            $table->boolean('is_due')->default(false);
            $table->timestampTz('counted_at')->useCurrent();
        });
        Schema::create('reading_parts', function (Blueprint $table): void {
            $table->foreignId('kpi_unit_id')->constrained('kpi_unit')->cascadeOnDelete();
            $table->date('period');
            $table->string('part', 120);
            $table->decimal('actual', 28, 8);
            $table->primary(['kpi_unit_id', 'period', 'part']);
        });
        $this->functions();
        foreach (['INSERT' => 'NEW TABLE AS new_rows', 'UPDATE' => 'OLD TABLE AS old_rows NEW TABLE AS new_rows', 'DELETE' => 'OLD TABLE AS old_rows'] as $event => $rows) {
            DB::statement('CREATE TRIGGER counted_figures_stale_'.strtolower($event)." AFTER {$event} ON counted_figures REFERENCING {$rows} FOR EACH STATEMENT EXECUTE FUNCTION kybernet_mark_figures('0')");
        }
        AuditFunction::rewrite(self::PASSING, self::PASSING_MORE);
        AuditFunction::watch('record_sets');
        AuditFunction::watch('record_loads');
    }

    private function functions(): void
    {
        DB::unprepared(<<<'SQL'
            CREATE SCHEMA records;

            -- Only types that records have, and columns that are called c1, c2 and so on.
            CREATE FUNCTION kybernet_record_columns(columns jsonb) RETURNS text LANGUAGE plpgsql IMMUTABLE AS $$
            DECLARE
                found text;
            BEGIN
                SELECT string_agg(key || ' ' || (CASE value #>> '{}' WHEN 'text' THEN 'text' WHEN 'number' THEN 'numeric' WHEN 'date' THEN 'date' WHEN 'time' THEN 'timestamptz' WHEN 'yesno' THEN 'boolean' END), ', ' ORDER BY substr(key, 2)::int)
                INTO found FROM jsonb_each(columns) WHERE key ~ '^c[1-9][0-9]{0,3}$';
                IF found IS NULL OR (SELECT count(*) FROM jsonb_object_keys(columns)) <> (SELECT count(*) FROM regexp_matches(found, '(^|, )c', 'g')) THEN
                    RAISE EXCEPTION 'These are no columns of records.';
                END IF;
                RETURN found;
            END $$;

            CREATE FUNCTION kybernet_make_records(record_set bigint, columns jsonb, key_column text) RETURNS void LANGUAGE plpgsql SECURITY DEFINER SET search_path TO 'public', 'pg_temp' AS $$
            DECLARE
                definition text := kybernet_record_columns(columns);
                day text;
            BEGIN
                IF NOT columns ? key_column THEN
                    RAISE EXCEPTION 'The key is no column.';
                END IF;
                EXECUTE format('DROP TABLE IF EXISTS records.r%1$s, records.w%1$s', record_set);
                EXECUTE format('CREATE TABLE records.r%s (load bigint NOT NULL, %s)', record_set, definition);
                EXECUTE format('CREATE UNIQUE INDEX ON records.r%s (%I)', record_set, key_column);
                EXECUTE format('ALTER TABLE records.r%s ALTER COLUMN %I SET NOT NULL', record_set, key_column);
                EXECUTE format('CREATE TABLE records.w%s (by_load bigint NOT NULL, was_there boolean NOT NULL, load bigint, %s)', record_set, definition);
                EXECUTE format('CREATE INDEX ON records.w%s (by_load)', record_set);
                FOR day IN SELECT key FROM jsonb_each_text(columns) WHERE value = 'date' LOOP
                    EXECUTE format('CREATE INDEX ON records.r%s (%I)', record_set, day);
                END LOOP;
            END $$;

            CREATE FUNCTION kybernet_add_record_field(record_set bigint, added text, type text) RETURNS void LANGUAGE plpgsql SECURITY DEFINER SET search_path TO 'public', 'pg_temp' AS $$
            DECLARE
                definition text := kybernet_record_columns(jsonb_build_object(added, type));
            BEGIN
                EXECUTE format('ALTER TABLE records.r%s ADD COLUMN %s', record_set, definition);
                EXECUTE format('ALTER TABLE records.w%s ADD COLUMN %s', record_set, definition);
            END $$;

            CREATE FUNCTION kybernet_drop_records(record_set bigint) RETURNS void LANGUAGE plpgsql SECURITY DEFINER SET search_path TO 'public', 'pg_temp' AS $$
            BEGIN
                EXECUTE format('DROP TABLE IF EXISTS records.r%1$s, records.w%1$s', record_set);
            END $$;

            CREATE FUNCTION kybernet_stage_records(record_load bigint, columns jsonb) RETURNS void LANGUAGE plpgsql SECURITY DEFINER SET search_path TO 'public', 'pg_temp' AS $$
            BEGIN
                EXECUTE format('DROP TABLE IF EXISTS records.s%s', record_load);
                EXECUTE format('CREATE UNLOGGED TABLE records.s%s (line bigint NOT NULL, %s)', record_load, kybernet_record_columns(columns));
            END $$;

            -- Tables of sets and loads that are there no longer, or that need theirs no more.
            CREATE FUNCTION kybernet_sweep_records() RETURNS void LANGUAGE plpgsql SECURITY DEFINER SET search_path TO 'public', 'pg_temp' AS $$
            DECLARE
                orphan text;
            BEGIN
                FOR orphan IN SELECT tablename FROM pg_tables WHERE schemaname = 'records' AND NOT (CASE WHEN tablename LIKE 's%'
                    THEN EXISTS (SELECT FROM record_loads WHERE id = substr(tablename, 2)::bigint AND state IN ('reading', 'ready', 'applying'))
                    ELSE EXISTS (SELECT FROM record_sets WHERE id = substr(tablename, 2)::bigint) END) LOOP
                    EXECUTE format('DROP TABLE records.%I', orphan);
                END LOOP;
            END $$;

            CREATE FUNCTION kybernet_unstage_records(record_load bigint) RETURNS void LANGUAGE plpgsql SECURITY DEFINER SET search_path TO 'public', 'pg_temp' AS $$
            BEGIN
                EXECUTE format('DROP TABLE IF EXISTS records.s%s', record_load);
            END $$;
            SQL);
    }

    public function down(): void
    {
        foreach (['insert', 'update', 'delete'] as $event) {
            DB::statement("DROP TRIGGER record_sets_audit_{$event} ON record_sets");
            DB::statement("DROP TRIGGER record_loads_audit_{$event} ON record_loads");
        }
        AuditFunction::rewrite(self::PASSING_MORE, self::PASSING);
        Schema::drop('reading_parts');
        Schema::drop('counted_kpis');
        Schema::drop('late_figures');
        Schema::drop('counted_figures');
        DB::statement("ALTER TABLE kpis DROP CONSTRAINT kpis_kind_check, ADD CONSTRAINT kpis_kind_check CHECK (kind IN ('entered', 'formula', 'judged'))");
        Schema::table('kpis', fn (Blueprint $table) => $table->dropColumn(['counted', 'splits', 'parts', 'record_set_id']));
        Schema::drop('record_refusals');
        Schema::drop('record_loads');
        Schema::drop('record_set_owners');
        Schema::drop('record_sets');
        DB::unprepared('DROP FUNCTION kybernet_make_records, kybernet_add_record_field, kybernet_drop_records, kybernet_stage_records, kybernet_unstage_records, kybernet_sweep_records, kybernet_record_columns; DROP SCHEMA records CASCADE');
    }
};
