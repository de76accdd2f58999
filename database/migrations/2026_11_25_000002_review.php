<?php

declare(strict_types=1);

use Illuminate\Database\Migrations\Migration;
use Illuminate\Database\Schema\Blueprint;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Facades\Schema;

/**
 * What the managers' half of the month needs: actions, and what each person has seen.
 */
return new class extends Migration
{
    public function up(): void
    {
        Schema::create('actions', function (Blueprint $table): void {
            $table->id();
            $table->foreignId('kpi_unit_id')->constrained('kpi_unit')->restrictOnDelete();
            // The period that caused it.
            $table->date('period');
            $table->text('what');
            // A name, not an account: the people who do the work seldom have one.
            $table->string('who', 120);
            $table->date('due');
            $table->string('state', 8)->default('open');
            $table->text('outcome')->default('');
            $table->date('ended')->nullable();
            $table->unsignedInteger('version')->default(1);
            $table->foreignId('author_id')->nullable()->constrained('users')->nullOnDelete();
            $table->timestampsTz();
            $table->index('kpi_unit_id');
        });
        foreach ([
            'what' => "btrim(what) <> ''",
            'who' => "btrim(who) <> ''",
            'state' => "state IN ('open', 'done', 'dropped')",
            'ended' => "(state = 'open') = (ended IS NULL)",
        ] as $name => $condition) {
            DB::statement("ALTER TABLE actions ADD CONSTRAINT actions_{$name}_check CHECK ({$condition})");
        }
        foreach (['INSERT' => 'NEW TABLE AS new_rows', 'UPDATE' => 'OLD TABLE AS old_rows NEW TABLE AS new_rows', 'DELETE' => 'OLD TABLE AS old_rows'] as $event => $rows) {
            DB::statement('CREATE TRIGGER actions_audit_'.strtolower($event)." AFTER {$event} ON actions REFERENCING {$rows} FOR EACH STATEMENT EXECUTE FUNCTION kybernet_audit('id')");
        }

        Schema::create('seen_marks', function (Blueprint $table): void {
            $table->foreignId('user_id')->constrained('users')->cascadeOnDelete();
            $table->foreignId('kpi_unit_id')->constrained('kpi_unit')->cascadeOnDelete();
            $table->date('period');
            // Which reasons were seen: another one brings the KPI back.
            $table->string('reasons', 200);
            $table->timestampTz('at')->useCurrent();
            $table->primary(['user_id', 'kpi_unit_id', 'period']);
        });
    }

    public function down(): void
    {
        Schema::dropIfExists('seen_marks');
        Schema::dropIfExists('actions');
    }
};
