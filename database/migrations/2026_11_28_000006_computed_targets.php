<?php

declare(strict_types=1);

use Illuminate\Database\Migrations\Migration;
use Illuminate\Database\Schema\Blueprint;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Facades\Schema;

/**
 * Targets that are worked out from other KPIs. What is judged by them follows those others, as formula KPIs do: up to a
 * year back too, since the year target is made of the whole year.
 */
return new class extends Migration
{
    private const FOLLOWS = 'kpis.formula IS NOT NULL OR kpi_unit.is_gathered';

    public function up(): void
    {
        Schema::table('kpis', function (Blueprint $table): void {
            // Of a band that of its lower target.
            $table->text('target_formula')->nullable();
            $table->text('high_target_formula')->nullable();
        });
        DB::statement("ALTER TABLE kpis ADD CONSTRAINT kpis_target_formula_check CHECK (
            (kind <> 'judged' OR target_formula IS NULL) AND (high_target_formula IS NOT NULL) = (polarity = 'band' AND target_formula IS NOT NULL))");
        $this->rewrite('kybernet_mark_figures', [
            self::FOLLOWS => 'kpis.formula IS NOT NULL OR kpis.target_formula IS NOT NULL OR kpi_unit.is_gathered',
            'min(above.first) FROM above' => 'min(CASE WHEN kpis.target_formula IS NULL THEN above.first ELSE above.first - make_interval(months => 12) END)::date FROM above',
        ]);
        $this->rewrite('kybernet_mark_definitions', [self::FOLLOWS => 'kpis.formula IS NOT NULL OR kpis.target_formula IS NOT NULL OR kpi_unit.is_gathered']);
    }

    public function down(): void
    {
        $this->rewrite('kybernet_mark_figures', [
            ' OR kpis.target_formula IS NOT NULL' => '',
            'min(CASE WHEN kpis.target_formula IS NULL THEN above.first ELSE above.first - make_interval(months => 12) END)::date FROM above' => 'min(above.first) FROM above',
        ]);
        $this->rewrite('kybernet_mark_definitions', [' OR kpis.target_formula IS NOT NULL' => '']);
        Schema::table('kpis', fn (Blueprint $table) => $table->dropColumn(['target_formula', 'high_target_formula']));
    }

    /** @param  array<string, string>  $replacements */
    private function rewrite(string $function, array $replacements): void
    {
        $text = DB::scalar('SELECT pg_get_functiondef(?::regproc)', [$function]);
        if (! is_string($text)) {
            throw new LogicException("{$function} is not there.");
        }
        foreach ($replacements as $from => $to) {
            if (! str_contains($text, $from)) {
                throw new LogicException("{$function} does not say: {$from}");
            }
            $text = str_replace($from, $to, $text);
        }
        DB::unprepared($text);
    }
};
