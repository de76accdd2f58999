<?php

declare(strict_types=1);

use App\Support\AuditFunction;
use Illuminate\Database\Migrations\Migration;
use Illuminate\Database\Schema\Blueprint;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Facades\Schema;

/** Units that change while months are closed: what those months said of anybody stays. */
return new class extends Migration
{
    public function up(): void
    {
        Schema::create('unit_history', function (Blueprint $table): void {
            $table->id();
            $table->foreignId('unit_id')->constrained('units')->cascadeOnDelete();
            // The last month for which it stood and counted so.
            $table->date('until');
            $table->foreignId('parent_id')->nullable()->constrained('units')->cascadeOnDelete();
            $table->decimal('weight', 28, 8);
            $table->string('roll_up', 12);
            $table->decimal('roll_up_green', 28, 8);
            $table->decimal('roll_up_other', 28, 8);
            $table->unique(['unit_id', 'until']);
        });
        Schema::create('unit_codes', function (Blueprint $table): void {
            // Codes that units had before: they still find them, and nobody else gets them.
            $table->string('code', 64)->primary();
            $table->foreignId('unit_id')->index()->constrained('units')->cascadeOnDelete();
        });
        DB::statement('CREATE UNIQUE INDEX unit_codes_any_case ON unit_codes (lower(code))');
        Schema::table('units', function (Blueprint $table): void {
            // From this month on nothing is measured there any longer; what ended with it comes back with it.
            $table->date('retired_from')->nullable();
            $table->uuid('retired_by')->nullable();
        });
        AuditFunction::rewrite("''is_settled'']", "''is_settled'', ''retired_by'']");
    }

    public function down(): void
    {
        AuditFunction::rewrite("''is_settled'', ''retired_by'']", "''is_settled'']");
        Schema::table('units', fn (Blueprint $table) => $table->dropColumn(['retired_from', 'retired_by']));
        Schema::drop('unit_codes');
        Schema::drop('unit_history');
    }
};
