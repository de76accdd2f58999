<?php

declare(strict_types=1);

use Illuminate\Database\Migrations\Migration;
use Illuminate\Database\Schema\Blueprint;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Facades\Schema;

/**
 * Figures are NUMERIC(28,8): exact, 20 digits before the point and 8 after. A period is the first day of its month.
 */
return new class extends Migration
{
    public function up(): void
    {
        Schema::create('units', function (Blueprint $table): void {
            $table->id();
            $table->string('code', 24)->unique();
            $table->string('name', 120);
            $table->string('kind', 24);
            $table->foreignId('parent_id')->nullable()->constrained('units')->restrictOnDelete();
            $table->decimal('weight', 6, 2)->default(1);
            $table->unsignedSmallInteger('position')->default(0);
            $table->index('parent_id');
        });
        $this->check('units', 'code', "code ~ '^[A-Z][A-Z0-9-]*$'");
        $this->check('units', 'weight', 'weight >= 0');
        $this->check('units', 'parent', 'parent_id IS DISTINCT FROM id');
        DB::statement('CREATE UNIQUE INDEX units_one_root ON units ((parent_id IS NULL)) WHERE parent_id IS NULL');

        Schema::create('users', function (Blueprint $table): void {
            $table->id();
            $table->string('name', 120);
            $table->string('email', 190)->unique();
            $table->string('password');
            $table->string('role', 24);
            $table->foreignId('unit_id')->constrained('units')->restrictOnDelete();
            $table->string('locale', 12)->default('en-GB');
            $table->rememberToken();
            $table->timestampsTz();
        });
        $this->check('users', 'role', "role IN ('analyst', 'owner', 'head', 'executive')");

        Schema::create('themes', function (Blueprint $table): void {
            $table->id();
            $table->string('name', 80)->unique();
            $table->unsignedSmallInteger('position')->default(0);
        });

        Schema::create('kpis', function (Blueprint $table): void {
            $table->id();
            $table->string('code', 16)->unique();
            $table->string('name', 120);
            $table->text('purpose')->default('');
            $table->string('measure', 24)->default('');
            $table->unsignedSmallInteger('decimals')->default(0);
            $table->boolean('scaled')->default(false);
            $table->foreignId('department_id')->constrained('units')->restrictOnDelete();
            $table->foreignId('theme_id')->nullable()->constrained('themes')->nullOnDelete();
            $table->string('level', 24);
            $table->string('polarity', 12);
            $table->string('accumulation', 12);
            $table->unsignedInteger('version')->default(1);
            $table->timestampsTz();
            $table->index('department_id');
        });
        DB::statement('CREATE UNIQUE INDEX kpis_name_unique ON kpis (lower(name))');
        $this->check('kpis', 'code', "code ~ '^[A-Z][A-Z0-9-]*$'");
        $this->check('kpis', 'decimals', 'decimals BETWEEN 0 AND 8');
        $this->check('kpis', 'level', "level IN ('organisational', 'departmental', 'operational')");
        $this->check('kpis', 'polarity', "polarity IN ('higher', 'lower', 'none')");
        $this->check('kpis', 'accumulation', "accumulation IN ('sum', 'mean', 'latest')");

        Schema::create('kpi_unit', function (Blueprint $table): void {
            $table->id();
            $table->foreignId('kpi_id')->constrained('kpis')->cascadeOnDelete();
            $table->foreignId('unit_id')->constrained('units')->restrictOnDelete();
            $table->foreignId('owner_id')->nullable()->constrained('users')->nullOnDelete();
            $table->decimal('weight', 6, 2)->default(1);
            $table->unsignedSmallInteger('position')->default(0);
            $table->unique(['kpi_id', 'unit_id']);
            $table->index('unit_id');
            $table->index('owner_id');
        });
        $this->check('kpi_unit', 'weight', 'weight >= 0');

        Schema::create('rule_sets', function (Blueprint $table): void {
            $table->id();
            $table->foreignId('kpi_id')->constrained('kpis')->cascadeOnDelete();
            $table->date('valid_from');
            $table->string('reference', 16);
            $table->string('measure', 16);
            $table->decimal('green', 28, 8);
            $table->decimal('amber', 28, 8);
            $table->unique(['kpi_id', 'valid_from']);
        });
        $this->month('rule_sets', 'valid_from');
        $this->check('rule_sets', 'pairing', "(reference, measure) IN (('target', 'percent'), ('none', 'level'))");
        $this->check('rule_sets', 'order', "measure <> 'percent' OR green <= amber");

        Schema::create('targets', function (Blueprint $table): void {
            $table->foreignId('kpi_unit_id')->constrained('kpi_unit')->cascadeOnDelete();
            $table->date('period');
            $table->decimal('target', 28, 8);
            $table->primary(['kpi_unit_id', 'period']);
        });
        $this->month('targets', 'period');

        Schema::create('readings', function (Blueprint $table): void {
            $table->id();
            $table->foreignId('kpi_unit_id')->constrained('kpi_unit')->restrictOnDelete();
            $table->date('period');
            // A reading that was taken back keeps its row, so that its version goes on counting.
            $table->decimal('actual', 28, 8)->nullable();
            $table->unsignedInteger('version')->default(1);
            $table->foreignId('entered_by')->nullable()->constrained('users')->nullOnDelete();
            $table->timestampsTz();
            $table->unique(['kpi_unit_id', 'period']);
        });
        $this->month('readings', 'period');

        Schema::create('notes', function (Blueprint $table): void {
            $table->id();
            $table->foreignId('kpi_unit_id')->constrained('kpi_unit')->restrictOnDelete();
            $table->date('period');
            $table->text('text');
            $table->unsignedInteger('version')->default(1);
            $table->foreignId('author_id')->nullable()->constrained('users')->nullOnDelete();
            $table->timestampsTz();
            $table->unique(['kpi_unit_id', 'period']);
        });
        $this->month('notes', 'period');
    }

    public function down(): void
    {
        foreach (['notes', 'readings', 'targets', 'rule_sets', 'kpi_unit', 'kpis', 'themes', 'users', 'units'] as $table) {
            Schema::dropIfExists($table);
        }
    }

    private function month(string $table, string $column): void
    {
        $this->check($table, "{$column}_is_month", "EXTRACT(DAY FROM {$column}) = 1");
    }

    private function check(string $table, string $name, string $condition): void
    {
        DB::statement("ALTER TABLE {$table} ADD CONSTRAINT {$table}_{$name}_check CHECK ({$condition})");
    }
};
