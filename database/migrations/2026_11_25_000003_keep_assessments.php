<?php

declare(strict_types=1);

use Illuminate\Database\Migrations\Migration;
use Illuminate\Database\Schema\Blueprint;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Facades\Schema;

/**
 * What was judged is kept, so that a page reads it instead of working it out again. Whatever a judgement follows from
 * takes it away in the same transaction, by triggers: no route, command or query passes them by. What is not there is
 * worked out when it is next asked for.
 */
return new class extends Migration
{
    /** Tables whose rows belong to a KPI-unit and a period, with how many months before it they still judge. */
    private const FIGURES = ['readings' => 0, 'notes' => 0, 'calls' => 0, 'targets' => 11];

    public function up(): void
    {
        DB::statement('CREATE SEQUENCE assessment_epoch');
        // The first step of a sequence does not show in its last value.
        DB::select("SELECT nextval('assessment_epoch')");
        Schema::create('assessed_months', function (Blueprint $table): void {
            $table->foreignId('kpi_unit_id')->constrained('kpi_unit')->cascadeOnDelete();
            $table->date('month');
            // A letter for each span: green, amber, red, not judged, no data.
            $table->char('statuses', 4);
            // Whether a period ends in the month, whether it is reported, whether somebody owes the latest one.
            $table->boolean('due');
            $table->boolean('reported');
            $table->boolean('missing');
            $table->primary(['kpi_unit_id', 'month']);
        });
        Schema::create('assessed_spans', function (Blueprint $table): void {
            $table->foreignId('kpi_unit_id')->constrained('kpi_unit')->cascadeOnDelete();
            $table->date('month');
            $table->string('span', 12);
            $table->string('status', 12);
            // Why it deserves attention: the codes of the reasons, and their points before the weight.
            $table->string('reasons', 200);
            $table->unsignedSmallInteger('points');
            $table->boolean('good');
            $table->jsonb('row');
            $table->primary(['kpi_unit_id', 'month', 'span']);
        });
        $this->figures();
        $this->definitions();
    }

    public function down(): void
    {
        foreach ([...array_keys(self::FIGURES), 'year_targets', 'rule_sets', 'kpi_unit', 'kpis', 'units'] as $table) {
            foreach (['insert', 'update', 'delete'] as $event) {
                DB::statement("DROP TRIGGER IF EXISTS {$table}_stale_{$event} ON {$table}");
            }
        }
        DB::statement('DROP FUNCTION IF EXISTS kybernet_stale_figures, kybernet_stale_definitions');
        Schema::dropIfExists('assessed_spans');
        Schema::dropIfExists('assessed_months');
        DB::statement('DROP SEQUENCE assessment_epoch');
    }

    /**
     * Of the KPI-units that were touched, and of all that is worked out in their units and the units above, from the
     * touched period on. The lock and the sequence tell whoever is judging just now not to keep what it has read.
     */
    private function figures(): void
    {
        DB::unprepared(<<<'SQL'
            CREATE FUNCTION kybernet_stale_figures() RETURNS trigger LANGUAGE plpgsql AS $$
            DECLARE
                period text := CASE TG_TABLE_NAME WHEN 'year_targets' THEN 'make_date(year, 1, 1)' ELSE 'period' END;
                stale text;
            BEGIN
                PERFORM pg_advisory_xact_lock_shared(8171), nextval('assessment_epoch');
                stale := format(
                    'WITH RECURSIVE touched AS (SELECT kpi_unit_id AS id, date_trunc(''month'', min(%1$s) - make_interval(months => %2$s))::date AS first FROM (%3$s) AS rows GROUP BY 1),
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
                     )',
                    period, TG_ARGV[0],
                    CASE TG_OP
                        WHEN 'INSERT' THEN 'SELECT * FROM new_rows'
                        WHEN 'DELETE' THEN 'SELECT * FROM old_rows'
                        ELSE 'SELECT * FROM new_rows UNION ALL SELECT * FROM old_rows'
                    END
                );
                EXECUTE stale || ' DELETE FROM assessed_months USING affected WHERE kpi_unit_id = affected.id AND month >= affected.first';
                EXECUTE stale || ' DELETE FROM assessed_spans USING affected WHERE kpi_unit_id = affected.id AND month >= affected.first';
                RETURN NULL;
            END $$;
            SQL);
        foreach (self::FIGURES as $table => $before) {
            $this->after($table, "kybernet_stale_figures('{$before}')");
        }
        // A year may begin in any month of the calendar year before the one that its last month is in.
        $this->after('year_targets', "kybernet_stale_figures('12')");
    }

    /** A definition judges every month; one that others are worked out from can change what they are. */
    private function definitions(): void
    {
        DB::unprepared(<<<'SQL'
            CREATE FUNCTION kybernet_stale_definitions() RETURNS trigger LANGUAGE plpgsql AS $$
            DECLARE
                rows text := CASE TG_OP
                    WHEN 'INSERT' THEN 'SELECT * FROM new_rows'
                    WHEN 'DELETE' THEN 'SELECT * FROM old_rows'
                    ELSE 'SELECT * FROM new_rows UNION ALL SELECT * FROM old_rows'
                END;
                affected text;
            BEGIN
                PERFORM pg_advisory_xact_lock_shared(8171), nextval('assessment_epoch');
                IF TG_TABLE_NAME = 'units' THEN
                    DELETE FROM assessed_months;
                    DELETE FROM assessed_spans;
                    RETURN NULL;
                END IF;
                affected := format(
                    'SELECT kpi_unit.id FROM kpi_unit JOIN kpis ON kpis.id = kpi_unit.kpi_id
                     WHERE kpi_unit.kpi_id IN (SELECT %s FROM (%s) AS rows) OR (%L AND (kpis.formula IS NOT NULL OR kpi_unit.is_gathered))',
                    CASE TG_TABLE_NAME WHEN 'kpis' THEN 'id' ELSE 'kpi_id' END, rows, TG_TABLE_NAME <> 'rule_sets'
                );
                EXECUTE 'DELETE FROM assessed_months WHERE kpi_unit_id IN (' || affected || ')';
                EXECUTE 'DELETE FROM assessed_spans WHERE kpi_unit_id IN (' || affected || ')';
                RETURN NULL;
            END $$;
            SQL);
        foreach (['kpis', 'rule_sets', 'kpi_unit', 'units'] as $table) {
            $this->after($table, 'kybernet_stale_definitions()');
        }
    }

    private function after(string $table, string $function): void
    {
        foreach (['INSERT' => 'NEW TABLE AS new_rows', 'UPDATE' => 'OLD TABLE AS old_rows NEW TABLE AS new_rows', 'DELETE' => 'OLD TABLE AS old_rows'] as $event => $rows) {
            DB::statement("CREATE TRIGGER {$table}_stale_".strtolower($event)." AFTER {$event} ON {$table} REFERENCING {$rows} FOR EACH STATEMENT EXECUTE FUNCTION {$function}");
        }
    }
};
