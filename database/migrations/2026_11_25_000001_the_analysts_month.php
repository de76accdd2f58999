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
    /** The tables of the trail, with what identifies a row. */
    private const AUDITED = [
        'kpis' => 'id', 'rule_sets' => 'id', 'kpi_unit' => 'id', 'kpi_drivers' => 'kpi_id, driver_id', 'targets' => 'kpi_unit_id, period',
        'year_targets' => 'kpi_unit_id, year', 'readings' => 'id', 'notes' => 'id', 'calls' => 'id', 'period_states' => 'unit_id, period',
        'imports' => 'id', 'objectives' => 'id', 'themes' => 'id',
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

    /** Statement by statement, over all rows that a statement touched at once: a block of cells is one step. */
    private function audit(): void
    {
        DB::unprepared(<<<'SQL'
            CREATE FUNCTION kybernet_audit() RETURNS trigger LANGUAGE plpgsql AS $$
            DECLARE
                passing CONSTANT text := 'ARRAY[''version'', ''created_at'', ''updated_at'', ''position'']';
                changes text;
            BEGIN
                IF current_setting('kybernet.audit', true) = 'off' THEN
                    RETURN NULL;
                END IF;
                changes := CASE TG_OP
                    WHEN 'INSERT' THEN format('SELECT NULL::jsonb AS before, to_jsonb(n) - %s AS after FROM new_rows n', passing)
                    WHEN 'DELETE' THEN format('SELECT to_jsonb(o) - %s AS before, NULL::jsonb AS after FROM old_rows o', passing)
                    ELSE format('SELECT to_jsonb(o) - %s AS before, to_jsonb(n) - %1$s AS after FROM old_rows o FULL JOIN new_rows n USING (%s)', passing, TG_ARGV[0])
                END;
                EXECUTE format(
                    'INSERT INTO audit_entries (user_id, batch, subject, kpi_id, kpi_unit_id, unit_id, period, reason, before, after)
                     SELECT $1, $2, $3,
                         CASE WHEN $3 = ''kpis'' THEN (known ->> ''id'')::bigint ELSE coalesce((known ->> ''kpi_id'')::bigint, kpi_unit.kpi_id) END,
                         CASE WHEN $3 = ''kpi_unit'' THEN (known ->> ''id'')::bigint ELSE (known ->> ''kpi_unit_id'')::bigint END,
                         (known ->> ''unit_id'')::bigint, (known ->> ''period'')::date, $4, before, after
                     -- OFFSET 0: each row is turned into JSON once, not again wherever a part of it is named.
                     FROM (SELECT *, coalesce(after, before) AS known FROM (%s OFFSET 0) AS changes WHERE before IS DISTINCT FROM after OFFSET 0) AS told
                     LEFT JOIN kpi_unit ON kpi_unit.id = (known ->> ''kpi_unit_id'')::bigint',
                    changes
                ) USING
                    nullif(current_setting('kybernet.user', true), '')::bigint,
                    nullif(current_setting('kybernet.batch', true), '')::uuid,
                    TG_TABLE_NAME,
                    nullif(current_setting('kybernet.reason', true), '');
                RETURN NULL;
            END $$;
            SQL);
        foreach (self::AUDITED as $table => $key) {
            $this->after('audit', $table, $table === 'imports' ? ['UPDATE'] : ['INSERT', 'UPDATE', 'DELETE'], "kybernet_audit('{$key}')");
        }
    }

    private function lock(): void
    {
        DB::unprepared(<<<'SQL'
            CREATE FUNCTION kybernet_lock() RETURNS trigger LANGUAGE plpgsql AS $$
            DECLARE
                is_closed boolean;
            BEGIN
                EXECUTE format(
                    'SELECT EXISTS (
                         SELECT 1
                         FROM (%s) AS touched
                         JOIN kpi_unit ON kpi_unit.id = touched.kpi_unit_id
                         JOIN kpis ON kpis.id = kpi_unit.kpi_id
                         JOIN period_states ON period_states.unit_id = kpi_unit.unit_id AND period_states.period = date_trunc(''month'', CASE kpis.frequency
                             WHEN ''week'' THEN touched.period + 3
                             WHEN ''quarter'' THEN touched.period + interval ''2 months''
                             WHEN ''year'' THEN touched.period + interval ''11 months''
                             ELSE touched.period
                         END)::date
                     )',
                    CASE TG_OP
                        WHEN 'INSERT' THEN 'SELECT kpi_unit_id, period FROM new_rows'
                        WHEN 'DELETE' THEN 'SELECT kpi_unit_id, period FROM old_rows'
                        ELSE 'SELECT kpi_unit_id, period FROM new_rows UNION SELECT kpi_unit_id, period FROM old_rows'
                    END
                ) INTO is_closed;
                IF is_closed THEN
                    RAISE EXCEPTION 'The month is closed.' USING ERRCODE = 'KY001';
                END IF;
                RETURN NULL;
            END $$;
            SQL);
        foreach (['readings', 'targets', 'notes', 'calls'] as $table) {
            $this->after('lock', $table, ['INSERT', 'UPDATE', 'DELETE'], 'kybernet_lock()');
        }
    }

    /** @param  list<string>  $events */
    private function after(string $name, string $table, array $events, string $function): void
    {
        $rows = ['INSERT' => 'NEW TABLE AS new_rows', 'UPDATE' => 'OLD TABLE AS old_rows NEW TABLE AS new_rows', 'DELETE' => 'OLD TABLE AS old_rows'];
        foreach ($events as $event) {
            DB::statement("CREATE TRIGGER {$table}_{$name}_".strtolower($event)." AFTER {$event} ON {$table} REFERENCING {$rows[$event]} FOR EACH STATEMENT EXECUTE FUNCTION {$function}");
        }
    }

    private function check(string $table, string $name, string $condition): void
    {
        DB::statement("ALTER TABLE {$table} ADD CONSTRAINT {$table}_{$name}_check CHECK ({$condition})");
    }
};
