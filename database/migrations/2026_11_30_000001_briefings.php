<?php

declare(strict_types=1);

use App\Support\AuditFunction;
use Illuminate\Database\Migrations\Migration;
use Illuminate\Database\Schema\Blueprint;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Facades\Schema;

/** Pages for management: what stands on them, what was published, and links with which they are read. */
return new class extends Migration
{
    private const PASSING = "''token_hash'']";

    private const PASSING_MORE = "''token_hash'', ''content'', ''answer'', ''figures'', ''kept_at'', ''kept_by'', ''hash'', ''opened'', ''opened_at'']";

    public function up(): void
    {
        Schema::create('briefings', function (Blueprint $table): void {
            $table->id();
            $table->string('code', 60)->unique();
            $table->string('name', 120);
            $table->foreignId('unit_id')->constrained('units')->cascadeOnDelete();
            $table->string('span', 12);
            // Everybody who may open the unit, or only the people named.
            $table->string('audience', 8)->default('unit');
            // What is being written; what readers have is in the issues.
            $table->jsonb('content');
            $table->integer('version')->default(0);
            $table->timestampTz('kept_at')->useCurrent();
            $table->foreignId('kept_by')->nullable()->constrained('users')->nullOnDelete();
            $table->timestampTz('retired_at')->nullable();
        });
        Schema::create('briefing_readers', function (Blueprint $table): void {
            $table->foreignId('briefing_id')->constrained('briefings')->cascadeOnDelete();
            $table->foreignId('user_id')->constrained('users')->cascadeOnDelete();
            $table->primary(['briefing_id', 'user_id']);
        });
        Schema::create('briefing_issues', function (Blueprint $table): void {
            $table->id();
            $table->foreignId('briefing_id')->constrained('briefings')->cascadeOnDelete();
            $table->integer('number');
            $table->date('period');
            $table->string('name', 120);
            $table->string('span', 12);
            $table->jsonb('content');
            // What its readers saw, and the figures in it by which a later change is found.
            $table->jsonb('answer');
            $table->jsonb('figures');
            $table->timestampTz('published_at')->useCurrent();
            $table->foreignId('published_by')->nullable()->constrained('users')->nullOnDelete();
            $table->unique(['briefing_id', 'number']);
            $table->index(['briefing_id', 'period', 'number']);
        });
        Schema::create('briefing_links', function (Blueprint $table): void {
            $table->id();
            $table->foreignId('briefing_id')->constrained('briefings')->cascadeOnDelete();
            $table->char('hash', 64)->unique();
            $table->string('name', 120);
            $table->date('until');
            $table->boolean('masked');
            $table->foreignId('made_by')->nullable()->constrained('users')->nullOnDelete();
            $table->timestampTz('made_at')->useCurrent();
            $table->timestampTz('ended_at')->nullable();
            $table->integer('opened')->default(0);
            $table->timestampTz('opened_at')->nullable();
        });
        Schema::create('briefing_pictures', function (Blueprint $table): void {
            $table->id();
            $table->foreignId('briefing_id')->constrained('briefings')->cascadeOnDelete();
            $table->string('type', 12);
            $table->integer('width');
            $table->integer('height');
            $table->text('bytes');
            $table->char('digest', 64);
            $table->unique(['briefing_id', 'digest']);
        });
        DB::unprepared(<<<'SQL'
            ALTER TABLE briefings ADD CONSTRAINT briefings_audience_check CHECK (audience IN ('unit', 'people')),
                ADD CONSTRAINT briefings_span_check CHECK (span IN ('month', 'quarter', 'yearToDate', 'rolling12'));
            ALTER TABLE briefing_issues ADD CONSTRAINT briefing_issues_period_check CHECK (extract(day FROM period) = 1);
            -- An issue stays as it was: nobody changes one, and only its whole briefing takes it along.
            CREATE FUNCTION kybernet_issue_stays() RETURNS trigger LANGUAGE plpgsql AS $$
            BEGIN
                RAISE EXCEPTION 'An issue that was published stays as it is.' USING ERRCODE = 'check_violation';
            END $$;
            CREATE TRIGGER briefing_issues_stay BEFORE UPDATE OF number, period, name, span, content, answer, figures, published_at ON briefing_issues FOR EACH ROW EXECUTE FUNCTION kybernet_issue_stays();
            SQL);
        AuditFunction::rewrite(self::PASSING, self::PASSING_MORE);
        AuditFunction::watch('briefings');
        AuditFunction::watch('briefing_issues');
        AuditFunction::watch('briefing_links');
    }

    public function down(): void
    {
        foreach (['briefing_pictures', 'briefing_links', 'briefing_issues', 'briefing_readers', 'briefings'] as $table) {
            Schema::drop($table);
        }
        DB::unprepared('DROP FUNCTION kybernet_issue_stays');
        AuditFunction::rewrite(self::PASSING_MORE, self::PASSING);
    }
};
