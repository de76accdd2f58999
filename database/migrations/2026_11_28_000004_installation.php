<?php

declare(strict_types=1);

use Illuminate\Database\Migrations\Migration;
use Illuminate\Database\Schema\Blueprint;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Facades\Schema;

/**
 * What this installation is, decided once and kept with its data: whether it shows the demonstration, and in which
 * month its financial year starts. Accounts may be switched off.
 */
return new class extends Migration
{
    public function up(): void
    {
        Schema::create('installation', function (Blueprint $table): void {
            // There is one of it.
            $table->boolean('one')->default(true)->primary();
            $table->boolean('is_demonstration')->default(false);
            $table->unsignedSmallInteger('year_start_month')->default(4);
        });
        DB::statement('ALTER TABLE installation ADD CONSTRAINT installation_one_check CHECK (one)');
        DB::statement('ALTER TABLE installation ADD CONSTRAINT installation_month_check CHECK (year_start_month BETWEEN 1 AND 12)');
        DB::table('installation')->insert([
            // Until now every installation began with the demonstration, in April, unless a setting said otherwise.
            'is_demonstration' => DB::table('users')->where('email', 'analyst@ostermere.example')->exists() && DB::table('units')->where('code', 'OST')->exists(),
            'year_start_month' => max(1, min(12, (int) (getenv('KYBERNET_YEAR_START_MONTH') !== false ? getenv('KYBERNET_YEAR_START_MONTH') : 4))),
        ]);
        Schema::table('users', function (Blueprint $table): void {
            $table->timestampTz('blocked_at')->nullable();
        });
    }

    public function down(): void
    {
        Schema::table('users', fn (Blueprint $table) => $table->dropColumn('blocked_at'));
        Schema::drop('installation');
    }
};
