<?php

declare(strict_types=1);

use Illuminate\Database\Migrations\Migration;
use Illuminate\Support\Facades\DB;

return new class extends Migration
{
    public function up(): void
    {
        DB::unprepared(<<<'SQL'
            -- Whose records are counted in a unit follows from the tree and its codes; in which period, from time zone and year.
            CREATE FUNCTION kybernet_count_again() RETURNS trigger LANGUAGE plpgsql AS $$
            BEGIN
                UPDATE counted_kpis SET is_due = true WHERE NOT is_due;
                RETURN NULL;
            END $$;
            CREATE TRIGGER units_count_again AFTER INSERT OR DELETE OR UPDATE OF parent_id, code ON units FOR EACH STATEMENT EXECUTE FUNCTION kybernet_count_again();
            CREATE TRIGGER installation_count_again AFTER UPDATE OF year_start_month, time_zone ON installation FOR EACH STATEMENT EXECUTE FUNCTION kybernet_count_again();
        SQL);
    }

    public function down(): void
    {
        DB::unprepared('DROP TRIGGER units_count_again ON units; DROP TRIGGER installation_count_again ON installation; DROP FUNCTION kybernet_count_again');
    }
};
