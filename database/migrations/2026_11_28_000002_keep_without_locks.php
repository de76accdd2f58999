<?php

declare(strict_types=1);

use Illuminate\Database\Migrations\Migration;
use Illuminate\Database\Schema\Blueprint;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Facades\Schema;

/**
 * Nobody who reads blocks anybody who writes. What was judged is kept with the oldest transaction that was still on its
 * way when its figures began to be read (`seen`); whoever changes what a judgement follows from leaves a mark with the
 * transaction that it was changed in. Kept rows hold unless a mark of that transaction or a later one touches them:
 * every earlier one was over before, and its figures were read. Writers only add marks, so no two of them can wait for
 * each other here, and none for a reader.
 *
 * `maker` is the version of the rules and of the layout that a row was made with; other versions do not read it.
 */
return new class extends Migration
{
    /** Tables whose rows belong to a KPI-unit and a period, with how many months before it they still judge. */
    private const FIGURES = ['readings' => 0, 'notes' => 0, 'calls' => 0, 'targets' => 11, 'year_targets' => 12];

    private const DEFINITIONS = ['kpis', 'rule_sets', 'kpi_unit', 'units'];

    private const EVENTS = ['INSERT' => 'NEW TABLE AS new_rows', 'UPDATE' => 'OLD TABLE AS old_rows NEW TABLE AS new_rows', 'DELETE' => 'OLD TABLE AS old_rows'];

    public function up(): void
    {
        $this->dropTriggers();
        DB::statement('DROP FUNCTION kybernet_stale_figures, kybernet_stale_definitions');
        DB::statement('DROP SEQUENCE assessment_epoch');
        Schema::drop('assessed_spans');
        Schema::drop('assessed_months');
        // No foreign keys: to keep a judgement must not wait for whoever is writing the KPI-unit.
        Schema::create('assessed_months', function (Blueprint $table): void {
            $table->unsignedBigInteger('kpi_unit_id');
            $table->date('month');
            $table->integer('maker');
            $table->unsignedBigInteger('seen');
            // A letter for each span: green, amber, red, not judged, no data.
            $table->char('statuses', 4);
            // How many readings of the month people owe, and how many of those have arrived.
            $table->unsignedSmallInteger('owed');
            $table->unsignedSmallInteger('arrived');
            $table->primary(['kpi_unit_id', 'month']);
        });
        Schema::create('assessed_spans', function (Blueprint $table): void {
            $table->unsignedBigInteger('kpi_unit_id');
            $table->date('month');
            $table->string('span', 12);
            $table->integer('maker');
            $table->unsignedBigInteger('seen');
            $table->string('status', 12);
            // Why it deserves attention: the codes of the reasons, and their points before the weight.
            $table->string('reasons', 200);
            $table->unsignedSmallInteger('points');
            $table->boolean('good');
            $table->jsonb('record');
            $table->primary(['kpi_unit_id', 'month', 'span']);
        });
        Schema::create('assessment_marks', function (Blueprint $table): void {
            // 0: all of them.
            $table->unsignedBigInteger('kpi_unit_id');
            // From this month on.
            $table->date('first');
            $table->unsignedBigInteger('changed');
            $table->index('kpi_unit_id');
        });
        // Marks up to this transaction have been swept away, with what they touched: nothing that was seen before it may be kept any more.
        Schema::create('assessment_floor', function (Blueprint $table): void {
            $table->unsignedBigInteger('swept');
        });
        DB::table('assessment_floor')->insert(['swept' => 0]);
        $this->functions();
        foreach (self::FIGURES as $table => $before) {
            $this->after($table, "kybernet_mark_figures('{$before}')");
        }
        foreach (self::DEFINITIONS as $table) {
            $this->after($table, 'kybernet_mark_definitions()');
        }
    }

    private function functions(): void
    {
        DB::unprepared(<<<'SQL'
            CREATE FUNCTION kybernet_transaction() RETURNS bigint LANGUAGE sql AS 'SELECT pg_current_xact_id()::text::bigint';

            -- Marks the KPI-units that were touched, and all that is worked out in their units and the units above, from
            -- the touched period on. A fixed baseline judges months before it too.
            CREATE FUNCTION kybernet_mark_figures() RETURNS trigger LANGUAGE plpgsql AS $$
            BEGIN
                EXECUTE format(
                    'INSERT INTO assessment_marks (kpi_unit_id, first, changed)
                     WITH RECURSIVE touched AS (SELECT kpi_unit_id AS id, date_trunc(''month'', min(%1$s) - make_interval(months => %2$s))::date AS first FROM (%3$s) AS rows GROUP BY 1),
                     above AS (
                         SELECT kpi_unit.unit_id AS unit, touched.first FROM touched JOIN kpi_unit USING (id)
                         UNION
                         SELECT units.parent_id, above.first FROM above JOIN units ON units.id = above.unit WHERE units.parent_id IS NOT NULL
                     ),
                     affected AS (
                         SELECT id, first FROM touched
                         UNION ALL
                         SELECT kpi_unit.id, min(above.first) FROM above
                         JOIN kpi_unit ON kpi_unit.unit_id = above.unit JOIN kpis ON kpis.id = kpi_unit.kpi_id
                         WHERE kpis.formula IS NOT NULL OR kpi_unit.is_gathered GROUP BY 1
                     )
                     SELECT id, min(CASE WHEN kpi_unit.baseline_from IS NULL THEN first ELSE ''-infinity'' END), kybernet_transaction()
                     FROM affected LEFT JOIN kpi_unit USING (id) GROUP BY id',
                    CASE TG_TABLE_NAME WHEN 'year_targets' THEN 'make_date(year, 1, 1)' ELSE 'period' END,
                    TG_ARGV[0],
                    CASE TG_OP
                        WHEN 'INSERT' THEN 'SELECT * FROM new_rows'
                        WHEN 'DELETE' THEN 'SELECT * FROM old_rows'
                        ELSE 'SELECT * FROM new_rows UNION ALL SELECT * FROM old_rows'
                    END
                );
                RETURN NULL;
            END $$;

            -- A definition judges every month; one that others are worked out from can change what they are.
            CREATE FUNCTION kybernet_mark_definitions() RETURNS trigger LANGUAGE plpgsql AS $$
            BEGIN
                IF TG_TABLE_NAME = 'units' THEN
                    INSERT INTO assessment_marks VALUES (0, '-infinity', kybernet_transaction());
                    RETURN NULL;
                END IF;
                EXECUTE format(
                    'INSERT INTO assessment_marks
                     SELECT kpi_unit.id, ''-infinity'', kybernet_transaction() FROM kpi_unit JOIN kpis ON kpis.id = kpi_unit.kpi_id
                     WHERE kpi_unit.kpi_id IN (SELECT %s FROM (%s) AS rows) OR (%L AND (kpis.formula IS NOT NULL OR kpi_unit.is_gathered))',
                    CASE TG_TABLE_NAME WHEN 'kpis' THEN 'id' ELSE 'kpi_id' END,
                    CASE TG_OP
                        WHEN 'INSERT' THEN 'SELECT * FROM new_rows'
                        WHEN 'DELETE' THEN 'SELECT * FROM old_rows'
                        ELSE 'SELECT * FROM new_rows UNION ALL SELECT * FROM old_rows'
                    END,
                    TG_TABLE_NAME <> 'rule_sets'
                );
                RETURN NULL;
            END $$;
            SQL);
    }

    private function after(string $table, string $function): void
    {
        foreach (self::EVENTS as $event => $rows) {
            DB::statement("CREATE TRIGGER {$table}_stale_".strtolower($event)." AFTER {$event} ON {$table} REFERENCING {$rows} FOR EACH STATEMENT EXECUTE FUNCTION {$function}");
        }
    }

    private function dropTriggers(): void
    {
        foreach ([...array_keys(self::FIGURES), ...self::DEFINITIONS] as $table) {
            foreach (array_keys(self::EVENTS) as $event) {
                DB::statement("DROP TRIGGER IF EXISTS {$table}_stale_".strtolower($event)." ON {$table}");
            }
        }
    }
};
