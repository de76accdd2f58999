<?php

declare(strict_types=1);

use Illuminate\Database\Migrations\Migration;
use Illuminate\Database\Schema\Blueprint;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Facades\Schema;

/**
 * How much of the year target is asked for by now. A stretch that is looser than green, which was taken before, goes.
 * Where a KPI begins to be measured in a unit, its history can be entered until the unit's next closing.
 */
return new class extends Migration
{
    public function up(): void
    {
        Schema::table('rule_sets', function (Blueprint $table): void {
            $table->string('pace', 12)->nullable();
        });
        DB::table('rule_sets')->where('reference', 'year-target')->update(['pace' => 'whole']);
        DB::statement("ALTER TABLE rule_sets ADD CONSTRAINT rule_sets_pace_check CHECK ((reference = 'year-target') = (pace IS NOT NULL) AND pace IN ('whole', 'even', 'last-year'))");
        Schema::table('kpi_unit', function (Blueprint $table): void {
            // When it began to be measured there; unknown for what was there before.
            $table->timestampTz('created_at')->nullable();
        });
        DB::statement('ALTER TABLE kpi_unit ALTER COLUMN created_at SET DEFAULT now()');
        DB::unprepared(str_replace(
            'JOIN period_states ON period_states.unit_id = kpi_unit.unit_id',
            'JOIN period_states ON (kpi_unit.created_at IS NULL OR kpi_unit.created_at <= (SELECT max(closed_at) FROM period_states latest WHERE latest.unit_id = kpi_unit.unit_id)) AND period_states.unit_id = kpi_unit.unit_id',
            DB::scalar("SELECT pg_get_functiondef('kybernet_lock'::regproc)"),
        ));
        DB::statement("UPDATE rule_sets SET stretch = NULL FROM kpis WHERE kpis.id = rule_sets.kpi_id AND rule_sets.measure = 'level' AND CASE kpis.polarity WHEN 'lower' THEN stretch > green ELSE stretch < green END");
    }

    public function down(): void
    {
        Schema::table('rule_sets', fn (Blueprint $table) => $table->dropColumn('pace'));
    }
};
