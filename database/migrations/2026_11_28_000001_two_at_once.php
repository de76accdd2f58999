<?php

declare(strict_types=1);

use Illuminate\Database\Migrations\Migration;
use Illuminate\Support\Facades\DB;

/**
 * Two people at once: closing a month waits for figures that are on their way, and figures wait for a closing that is.
 * The trail is written by its owner alone, so that the application can neither change it nor pass it by. Codes that
 * differ only in case are one code.
 */
return new class extends Migration
{
    public function up(): void
    {
        DB::unprepared(<<<'SQL'
            CREATE OR REPLACE FUNCTION kybernet_lock() RETURNS trigger LANGUAGE plpgsql AS $$
            DECLARE
                is_closed boolean;
            BEGIN
                -- Held together with other writers until the commit. Whoever closes a month holds it alone, so what was
                -- closed while this waited is seen below.
                PERFORM pg_advisory_xact_lock_shared(8172);
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

            CREATE FUNCTION kybernet_closing() RETURNS trigger LANGUAGE plpgsql AS $$
            BEGIN
                PERFORM pg_advisory_xact_lock(8172);
                RETURN NULL;
            END $$;
            CREATE TRIGGER period_states_closing BEFORE INSERT ON period_states FOR EACH STATEMENT EXECUTE FUNCTION kybernet_closing();

            CREATE OR REPLACE FUNCTION kybernet_audit() RETURNS trigger LANGUAGE plpgsql SECURITY DEFINER SET search_path = public, pg_temp AS $$
            DECLARE
                passing CONSTANT text := 'ARRAY[''version'', ''created_at'', ''updated_at'', ''position'', ''rows_read'', ''turn'', ''tries'', ''alive_at'']';
                changes text;
            BEGIN
                -- Only the owner of the trail may leave something out of it.
                IF current_setting('kybernet.audit', true) = 'off' AND session_user = current_user THEN
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
        DB::statement('CREATE SEQUENCE note_versions START 1000000');
        foreach (['kpis', 'units'] as $table) {
            $this->renameDoubles($table);
            DB::statement("CREATE UNIQUE INDEX {$table}_code_any_case ON {$table} (lower(code))");
        }
    }

    public function down(): void
    {
        foreach (['kpis', 'units'] as $table) {
            DB::statement("DROP INDEX {$table}_code_any_case");
        }
        DB::unprepared('DROP SEQUENCE note_versions; DROP TRIGGER period_states_closing ON period_states; DROP FUNCTION kybernet_closing; ALTER FUNCTION kybernet_audit SECURITY INVOKER');
    }

    /** The older keeps its code. Formulas go by the code as it is written, so none of them changes its meaning. */
    private function renameDoubles(string $table): void
    {
        $doubles = DB::table("{$table} as one")->whereExists(fn ($query) => $query->from("{$table} as other")->whereColumn('other.id', '<', 'one.id')->whereRaw('lower(other.code) = lower(one.code)'))->get(['one.id', 'one.code']);
        if ($table === 'kpis' && $doubles->isNotEmpty()) {
            throw new RuntimeException('These codes of KPIs differ from others only in case and must be renamed before this version can start: '.$doubles->pluck('code')->implode(', '));
        }
        foreach ($doubles as $double) {
            DB::table($table)->where('id', $double->id)->update(['code' => "{$double->code}-{$double->id}"]);
        }
    }
};
