<?php

declare(strict_types=1);

use Illuminate\Database\Migrations\Migration;
use Illuminate\Database\Schema\Blueprint;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Facades\Schema;

/**
 * What the analyst's half of the month needs: readiness of definitions, notes in three parts, states of readings,
 * closed months, imports that can be undone, and a trail of every change.
 *
 * The trail and the lock of closed months are triggers: no route, command or query passes them by.
 */
return new class extends Migration
{
    /** The tables of the trail. */
    private const AUDITED = [
        'kpis', 'rule_sets', 'kpi_unit', 'kpi_drivers', 'targets', 'year_targets', 'readings', 'notes', 'calls', 'period_states',
        'imports', 'objectives', 'themes',
    ];

    public function up(): void
    {
        Schema::table('kpis', function (Blueprint $table): void {
            $table->string('source', 200)->default('');
            $table->unsignedSmallInteger('due_day')->nullable();
            $table->boolean('data_available')->default(false);
            $table->boolean('definition_agreed')->default(false);
            $table->boolean('note_required')->default(false);
        });
        $this->check('kpis', 'due_day', 'due_day BETWEEN 1 AND 31');

        Schema::table('notes', function (Blueprint $table): void {
            $table->text('outlook')->default('');
            $table->text('doing')->default('');
        });
        Schema::table('readings', function (Blueprint $table): void {
            $table->string('state', 12)->default('entered');
            // The day up to which a figure of a period that is not over counts.
            $table->date('as_of')->nullable();
        });
        $this->check('readings', 'state', "state IN ('entered', 'submitted')");
        DB::statement('CREATE INDEX readings_provisional ON readings (kpi_unit_id) WHERE as_of IS NOT NULL');

        Schema::create('period_states', function (Blueprint $table): void {
            $table->foreignId('unit_id')->constrained('units')->cascadeOnDelete();
            $table->date('period');
            $table->foreignId('closed_by')->nullable()->constrained('users')->nullOnDelete();
            $table->timestampTz('closed_at')->useCurrent();
            $table->primary(['unit_id', 'period']);
        });
        $this->check('period_states', 'period_is_month', 'EXTRACT(DAY FROM period) = 1');

        Schema::create('imports', function (Blueprint $table): void {
            $table->id();
            $table->uuid('batch')->unique();
            $table->foreignId('user_id')->nullable()->constrained('users')->nullOnDelete();
            $table->string('file', 200);
            $table->string('path', 200);
            $table->foreignId('unit_id')->nullable()->constrained('units')->nullOnDelete();
            $table->string('state', 12)->default('reading');
            $table->jsonb('mapping')->default('{}');
            $table->unsignedInteger('rows_read')->default(0);
            $table->unsignedInteger('rows_total')->nullable();
            $table->text('problem')->default('');
            $table->timestampsTz();
            $table->timestampTz('applied_at')->nullable();
            $table->timestampTz('undone_at')->nullable();
        });
        $this->check('imports', 'state', "state IN ('mapping', 'reading', 'ready', 'applying', 'applied', 'undone', 'failed')");
        // One row a cell of the file; it waits here until somebody applies the import.
        Schema::create('import_cells', function (Blueprint $table): void {
            $table->foreignId('import_id')->constrained('imports')->cascadeOnDelete();
            $table->unsignedInteger('line');
            $table->string('place', 12);
            $table->string('layer', 8);
            $table->string('label', 160);
            $table->foreignId('kpi_unit_id')->nullable()->constrained('kpi_unit')->cascadeOnDelete();
            $table->date('period')->nullable();
            $table->string('typed', 200);
            // What stood there when the file was read, as the database writes it.
            $table->text('was')->default('');
            $table->decimal('figure', 28, 8)->nullable();
            $table->decimal('upper', 28, 8)->nullable();
            $table->string('colour', 8)->nullable();
            $table->text('note')->nullable();
            $table->string('outcome', 8);
            $table->string('reason', 300)->default('');
            $table->index(['import_id', 'outcome', 'line']);
        });
        $this->check('import_cells', 'outcome', "outcome IN ('new', 'changed', 'same', 'refused')");

        Schema::create('audit_entries', function (Blueprint $table): void {
            $table->id();
            $table->timestampTz('at')->default(DB::raw('clock_timestamp()'));
            // No foreign keys: the trail outlives what it tells of.
            $table->unsignedBigInteger('user_id')->nullable();
            $table->uuid('batch')->nullable();
            $table->string('subject', 24);
            $table->unsignedBigInteger('kpi_id')->nullable();
            $table->unsignedBigInteger('kpi_unit_id')->nullable();
            $table->unsignedBigInteger('unit_id')->nullable();
            $table->date('period')->nullable();
            $table->text('reason')->nullable();
            $table->jsonb('before')->nullable();
            $table->jsonb('after')->nullable();
            $table->index(['kpi_id', 'id']);
            $table->index('batch');
        });
        $this->audit();
        $this->lock();
    }

    private function audit(): void
    {
        DB::unprepared(<<<'SQL'
            CREATE FUNCTION kybernet_audit() RETURNS trigger LANGUAGE plpgsql AS $$
            DECLARE
                passing CONSTANT text[] := ARRAY['version', 'created_at', 'updated_at', 'position'];
                old_row jsonb := CASE WHEN TG_OP <> 'INSERT' THEN to_jsonb(OLD) - passing END;
                new_row jsonb := CASE WHEN TG_OP <> 'DELETE' THEN to_jsonb(NEW) - passing END;
                known jsonb := coalesce(new_row, old_row);
                of_unit bigint := (known ->> 'kpi_unit_id')::bigint;
                of_kpi bigint := CASE TG_TABLE_NAME WHEN 'kpis' THEN (known ->> 'id')::bigint ELSE (known ->> 'kpi_id')::bigint END;
            BEGIN
                IF old_row IS NOT DISTINCT FROM new_row OR current_setting('kybernet.audit', true) = 'off' THEN
                    RETURN NULL;
                END IF;
                IF of_kpi IS NULL AND of_unit IS NOT NULL THEN
                    SELECT kpi_id INTO of_kpi FROM kpi_unit WHERE id = of_unit;
                END IF;
                INSERT INTO audit_entries (user_id, batch, subject, kpi_id, kpi_unit_id, unit_id, period, reason, before, after) VALUES (
                    nullif(current_setting('kybernet.user', true), '')::bigint,
                    nullif(current_setting('kybernet.batch', true), '')::uuid,
                    TG_TABLE_NAME,
                    of_kpi,
                    CASE TG_TABLE_NAME WHEN 'kpi_unit' THEN (known ->> 'id')::bigint ELSE of_unit END,
                    (known ->> 'unit_id')::bigint,
                    (known ->> 'period')::date,
                    nullif(current_setting('kybernet.reason', true), ''),
                    old_row,
                    new_row
                );
                RETURN NULL;
            END $$;
            SQL);
        foreach (self::AUDITED as $table) {
            $events = $table === 'imports' ? 'UPDATE OF state' : 'INSERT OR UPDATE OR DELETE';
            DB::statement("CREATE TRIGGER {$table}_audit AFTER {$events} ON {$table} FOR EACH ROW EXECUTE FUNCTION kybernet_audit()");
        }
    }

    private function lock(): void
    {
        DB::unprepared(<<<'SQL'
            CREATE FUNCTION kybernet_closed(of_unit bigint, begins date) RETURNS boolean LANGUAGE sql STABLE AS $$
                SELECT EXISTS (
                    SELECT 1
                    FROM kpi_unit
                    JOIN kpis ON kpis.id = kpi_unit.kpi_id
                    JOIN period_states ON period_states.unit_id = kpi_unit.unit_id
                    WHERE kpi_unit.id = of_unit
                        AND period_states.period = date_trunc('month', CASE kpis.frequency
                            WHEN 'week' THEN begins + 3
                            WHEN 'quarter' THEN begins + interval '2 months'
                            WHEN 'year' THEN begins + interval '11 months'
                            ELSE begins
                        END)::date
                )
            $$;
            CREATE FUNCTION kybernet_lock() RETURNS trigger LANGUAGE plpgsql AS $$
            BEGIN
                IF TG_OP <> 'INSERT' AND kybernet_closed(OLD.kpi_unit_id, OLD.period)
                    OR TG_OP <> 'DELETE' AND kybernet_closed(NEW.kpi_unit_id, NEW.period) THEN
                    RAISE EXCEPTION 'The month is closed.' USING ERRCODE = 'KY001';
                END IF;
                RETURN CASE TG_OP WHEN 'DELETE' THEN OLD ELSE NEW END;
            END $$;
            SQL);
        foreach (['readings', 'targets', 'notes', 'calls'] as $table) {
            DB::statement("CREATE TRIGGER {$table}_lock BEFORE INSERT OR UPDATE OR DELETE ON {$table} FOR EACH ROW EXECUTE FUNCTION kybernet_lock()");
        }
    }

    private function check(string $table, string $name, string $condition): void
    {
        DB::statement("ALTER TABLE {$table} ADD CONSTRAINT {$table}_{$name}_check CHECK ({$condition})");
    }
};
