<?php

declare(strict_types=1);

use Illuminate\Database\Migrations\Migration;
use Illuminate\Database\Schema\Blueprint;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Facades\Schema;

/**
 * What takes long is done by workers. An import says whose turn it is (`turn`), how often it was begun (`tries`), and
 * when whoever is at it was last alive, so that it can be taken up again where a worker has died.
 */
return new class extends Migration
{
    public function up(): void
    {
        Schema::create('jobs', function (Blueprint $table): void {
            $table->id();
            $table->string('queue')->index();
            $table->longText('payload');
            $table->unsignedSmallInteger('attempts');
            $table->unsignedInteger('reserved_at')->nullable();
            $table->unsignedInteger('available_at');
            $table->unsignedInteger('created_at');
        });
        Schema::create('failed_jobs', function (Blueprint $table): void {
            $table->id();
            $table->string('uuid')->unique();
            $table->text('connection');
            $table->text('queue');
            $table->longText('payload');
            $table->longText('exception');
            $table->timestamp('failed_at')->useCurrent();
        });
        Schema::table('imports', function (Blueprint $table): void {
            $table->unsignedInteger('turn')->default(0);
            $table->unsignedSmallInteger('tries')->default(0);
            $table->timestampTz('alive_at')->nullable();
            // Where in the file the figures are: which sheet, and the line of the head.
            $table->string('sheet', 120)->default('');
            $table->unsignedInteger('head')->default(1);
            $table->string('path', 200)->nullable()->change();
        });
        DB::statement('ALTER TABLE imports DROP CONSTRAINT imports_state_check');
        DB::statement("ALTER TABLE imports ADD CONSTRAINT imports_state_check CHECK (state IN ('mapping', 'reading', 'ready', 'applying', 'applied', 'undoing', 'undone', 'failed'))");
        // Whoever was at these is gone with the former version; they can be begun again.
        DB::table('imports')->where('state', 'reading')->update(['state' => 'mapping']);
        DB::table('imports')->where('state', 'applying')->update(['state' => 'ready', 'problem' => 'It was interrupted. Nothing was changed; apply it again.']);
    }
};
