<?php

declare(strict_types=1);

use Illuminate\Database\Migrations\Migration;
use Illuminate\Support\Facades\DB;

/** A figure, note or call that is put under another KPI or period is told as removed there and made here. */
return new class extends Migration
{
    public function up(): void
    {
        $this->toldApartBy('kpi_unit_id, period');
    }

    public function down(): void
    {
        $this->toldApartBy('id');
    }

    private function toldApartBy(string $key): void
    {
        foreach (['readings', 'notes', 'calls'] as $table) {
            DB::statement("DROP TRIGGER {$table}_audit_update ON {$table}");
            DB::statement("CREATE TRIGGER {$table}_audit_update AFTER UPDATE ON {$table} REFERENCING OLD TABLE AS old_rows NEW TABLE AS new_rows FOR EACH STATEMENT EXECUTE FUNCTION kybernet_audit('{$key}')");
        }
    }
};
