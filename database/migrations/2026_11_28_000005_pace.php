<?php

declare(strict_types=1);

use Illuminate\Database\Migrations\Migration;
use Illuminate\Database\Schema\Blueprint;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Facades\Schema;

/** How much of the year target is asked for by now. A stretch that is looser than green, which was taken before, goes. */
return new class extends Migration
{
    public function up(): void
    {
        Schema::table('rule_sets', function (Blueprint $table): void {
            $table->string('pace', 12)->nullable();
        });
        DB::table('rule_sets')->where('reference', 'year-target')->update(['pace' => 'whole']);
        DB::statement("ALTER TABLE rule_sets ADD CONSTRAINT rule_sets_pace_check CHECK ((reference = 'year-target') = (pace IS NOT NULL) AND pace IN ('whole', 'even', 'last-year'))");
        DB::statement("UPDATE rule_sets SET stretch = NULL FROM kpis WHERE kpis.id = rule_sets.kpi_id AND rule_sets.measure = 'level' AND CASE kpis.polarity WHEN 'lower' THEN stretch > green ELSE stretch < green END");
    }

    public function down(): void
    {
        Schema::table('rule_sets', fn (Blueprint $table) => $table->dropColumn('pace'));
    }
};
