<?php

declare(strict_types=1);

use Illuminate\Database\Migrations\Migration;
use Illuminate\Database\Schema\Blueprint;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Facades\Schema;

/**
 * What the complete rules need: every frequency, accumulation, reference and measure, bands, formulas, judged KPIs,
 * calls, gathering over units, objectives and drivers.
 *
 * A period is the first day of its month, quarter or year, and the Monday of its week.
 */
return new class extends Migration
{
    public function up(): void
    {
        // An import replaces all units and KPIs within one transaction; until its end these may point at what is not there yet.
        DB::statement('ALTER TABLE users DROP CONSTRAINT users_unit_id_foreign, ADD CONSTRAINT users_unit_id_foreign FOREIGN KEY (unit_id) REFERENCES units (id) DEFERRABLE');
        DB::statement('ALTER TABLE units ALTER COLUMN weight TYPE numeric, ALTER COLUMN code TYPE varchar(64), ALTER COLUMN name TYPE varchar(200)');
        DB::statement('ALTER TABLE kpi_unit ALTER COLUMN weight TYPE numeric');
        Schema::table('units', function (Blueprint $table): void {
            $table->string('roll_up', 12)->default('weighted');
            $table->decimal('roll_up_green', 28, 8)->default('1.5');
            $table->decimal('roll_up_other', 28, 8)->default('0.5');
        });
        $this->check('units', 'roll_up', "roll_up IN ('weighted', 'worst', 'share')");
        $this->replaceCheck('units', 'code', "code ~ '^[A-Za-z][A-Za-z0-9_.-]*$'");

        Schema::create('objectives', function (Blueprint $table): void {
            $table->id();
            $table->string('code', 64)->unique();
            $table->string('name', 200);
            $table->unsignedSmallInteger('position')->default(0);
        });

        DB::statement('ALTER TABLE kpis ALTER COLUMN code TYPE varchar(64), ALTER COLUMN name TYPE varchar(200), ALTER COLUMN measure TYPE varchar(60)');
        Schema::table('kpis', function (Blueprint $table): void {
            $table->string('kind', 12)->default('entered');
            $table->string('frequency', 12)->default('month');
            $table->text('formula')->nullable();
            $table->decimal('min', 28, 8)->nullable();
            $table->decimal('max', 28, 8)->nullable();
            $table->decimal('materiality', 28, 8)->default(0);
            $table->string('gathering', 12)->nullable();
            $table->foreignId('weighted_by_id')->nullable();
            $table->foreignId('objective_id')->nullable()->constrained('objectives')->nullOnDelete();
            $table->text('text_green')->nullable();
            $table->text('text_amber')->nullable();
            $table->text('text_red')->nullable();
        });
        DB::statement('ALTER TABLE kpis ADD CONSTRAINT kpis_weighted_by_id_foreign FOREIGN KEY (weighted_by_id) REFERENCES kpis (id) DEFERRABLE');
        $this->replaceCheck('kpis', 'code', "code ~ '^[A-Za-z][A-Za-z0-9_.-]*$'");
        $this->replaceCheck('kpis', 'polarity', "polarity IN ('higher', 'lower', 'band', 'none')");
        $this->replaceCheck('kpis', 'accumulation', "accumulation IN ('sum', 'mean', 'latest', 'maximum', 'minimum', 'recompute')");
        $this->check('kpis', 'kind', "kind IN ('entered', 'formula', 'judged')");
        $this->check('kpis', 'formula', "(kind = 'formula') = (formula IS NOT NULL)");
        $this->check('kpis', 'frequency', "frequency IN ('week', 'month', 'quarter', 'year')");
        $this->check('kpis', 'bounds', 'min IS NULL OR max IS NULL OR min <= max');
        $this->check('kpis', 'materiality', 'materiality >= 0');
        $this->check('kpis', 'gathering', "gathering IN ('sum', 'mean', 'weighted', 'recompute')");
        $this->check('kpis', 'weighted', "(gathering IS NOT DISTINCT FROM 'weighted') = (weighted_by_id IS NOT NULL)");

        Schema::create('kpi_drivers', function (Blueprint $table): void {
            $table->foreignId('kpi_id')->constrained('kpis')->cascadeOnDelete();
            $table->foreignId('driver_id')->constrained('kpis')->cascadeOnDelete();
            $table->unsignedSmallInteger('position')->default(0);
            $table->primary(['kpi_id', 'driver_id']);
            $table->index('driver_id');
        });
        $this->check('kpi_drivers', 'self', 'kpi_id <> driver_id');

        Schema::table('kpi_unit', function (Blueprint $table): void {
            $table->date('measured_from')->nullable();
            $table->date('measured_to')->nullable();
            $table->boolean('is_gathered')->default(false);
            $table->date('baseline_from')->nullable();
            $table->date('baseline_to')->nullable();
        });
        $this->check('kpi_unit', 'tenure', 'measured_from IS NULL OR measured_to IS NULL OR measured_from <= measured_to');
        $this->check('kpi_unit', 'baseline', '(baseline_from IS NULL) = (baseline_to IS NULL)');

        Schema::table('rule_sets', function (Blueprint $table): void {
            $table->foreignId('kpi_unit_id')->nullable()->constrained('kpi_unit')->cascadeOnDelete();
            $table->unsignedSmallInteger('periods')->nullable();
            $table->decimal('stretch', 28, 8)->nullable();
            $table->decimal('margin_low', 28, 8)->nullable();
            $table->decimal('margin_high', 28, 8)->nullable();
            $table->dropUnique(['kpi_id', 'valid_from']);
            $table->index('kpi_unit_id');
        });
        DB::statement('CREATE UNIQUE INDEX rule_sets_one_a_month ON rule_sets (kpi_id, kpi_unit_id, valid_from) NULLS NOT DISTINCT');
        $this->replaceCheck('rule_sets', 'pairing', "(reference = 'none') = (measure = 'level') AND reference IN ('target', 'prior-year', 'recent', 'year-target', 'none') AND measure IN ('percent', 'absolute', 'reached', 'level')");
        $this->replaceCheck('rule_sets', 'order', "measure NOT IN ('percent', 'absolute') OR green <= amber");
        $this->check('rule_sets', 'periods', "(reference = 'recent') = (periods IS NOT NULL)");
        $this->check('rule_sets', 'margins', '(margin_low IS NULL) = (margin_high IS NULL)');

        Schema::table('targets', function (Blueprint $table): void {
            $table->decimal('low', 28, 8)->nullable();
            $table->decimal('high', 28, 8)->nullable();
        });
        DB::statement('ALTER TABLE targets ALTER COLUMN target DROP NOT NULL');
        $this->check('targets', 'form', 'CASE WHEN target IS NULL THEN low IS NOT NULL AND high IS NOT NULL AND low <= high ELSE low IS NULL AND high IS NULL END');
        Schema::create('year_targets', function (Blueprint $table): void {
            $table->foreignId('kpi_unit_id')->constrained('kpi_unit')->cascadeOnDelete();
            // The calendar year in which the financial year starts.
            $table->unsignedSmallInteger('year');
            $table->decimal('target', 28, 8)->nullable();
            $table->decimal('low', 28, 8)->nullable();
            $table->decimal('high', 28, 8)->nullable();
            $table->primary(['kpi_unit_id', 'year']);
        });
        $this->check('year_targets', 'form', 'CASE WHEN target IS NULL THEN low IS NOT NULL AND high IS NOT NULL AND low <= high ELSE low IS NULL AND high IS NULL END');

        Schema::table('readings', function (Blueprint $table): void {
            $table->string('colour', 8)->nullable();
        });
        $this->check('readings', 'colour', "colour IS NULL OR (colour IN ('green', 'amber', 'red') AND actual IS NULL)");
        foreach (['readings', 'targets', 'notes'] as $table) {
            $this->replaceCheck($table, 'period_is_month', 'EXTRACT(DAY FROM period) = 1 OR EXTRACT(ISODOW FROM period) = 1');
        }

        Schema::create('calls', function (Blueprint $table): void {
            $table->id();
            $table->foreignId('kpi_unit_id')->constrained('kpi_unit')->cascadeOnDelete();
            $table->date('period');
            $table->string('span', 12);
            $table->string('status', 8);
            $table->text('reason');
            // The figure that it was made over, as it was given out: up to 12 decimals.
            $table->decimal('over', 60, 12);
            $table->foreignId('author_id')->nullable()->constrained('users')->nullOnDelete();
            $table->timestampsTz();
            $table->unique(['kpi_unit_id', 'period', 'span']);
        });
        $this->check('calls', 'status', "status IN ('green', 'amber', 'red')");
        $this->check('calls', 'span', "span IN ('month', 'quarter', 'yearToDate', 'rolling12')");
        $this->check('calls', 'reason', "btrim(reason) <> ''");
    }

    private function replaceCheck(string $table, string $name, string $condition): void
    {
        DB::statement("ALTER TABLE {$table} DROP CONSTRAINT {$table}_{$name}_check");
        $this->check($table, $name, $condition);
    }

    private function check(string $table, string $name, string $condition): void
    {
        DB::statement("ALTER TABLE {$table} ADD CONSTRAINT {$table}_{$name}_check CHECK ({$condition})");
    }
};
