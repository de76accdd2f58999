<?php

declare(strict_types=1);

use App\Figures\AssessmentStore;
use App\Figures\KpiLine;
use App\Figures\KpiStore;
use App\Figures\Organisation;
use App\Models\Unit;
use Illuminate\Support\Facades\Config;
use Illuminate\Support\Facades\DB;
use Kybernet\Core\Calendar\Period;
use Kybernet\Core\Calendar\Span;

/** Judges and keeps three months of Network and its zones. */
function keepNetwork(): void
{
    $network = Unit::query()->where('code', 'NET')->firstOrFail();
    $ids = array_map(fn (KpiLine $kpi): int => $kpi->id, app(KpiStore::class)->lines(app(Organisation::class)->below($network->id)));
    $months = Period::parse('2026-06')->to(Period::parse('2026-08'));
    app(AssessmentStore::class)->months($ids, $months);
    app(AssessmentStore::class)->spans($ids, $months, Span::Month);
    app(AssessmentStore::class)->spans($ids, $months, Span::YearToDate);
}

function kept(): int
{
    return DB::table('assessed_months')->count() + DB::table('assessed_spans')->count();
}

it('keeps what was judged, and gives it back as it was', function () {
    $fresh = $this->as('analyst')->getJson('/api/units/NET/scorecard?period=2026-08&span=yearToDate')->assertOk()->json();
    expect(kept())->toBeGreaterThan(100)
        ->and($this->getJson('/api/units/NET/scorecard?period=2026-08&span=yearToDate')->json())->toBe($fresh);
});

it('takes away whatever a change may have touched, and nothing else', function (string $change) {
    keepNetwork();
    $before = kept();
    // {CODE} is the identity of a KPI in Network.
    DB::statement(preg_replace_callback('/\{([A-Z0-9-]+)\}/', fn (array $code): string => (string) $this->measuredId($code[1]), $change));
    $after = kept();
    [$looked, $wrong] = app(AssessmentStore::class)->check();

    expect($after)->toBeLessThan($before)->toBeGreaterThan(0)->and($looked)->toBe($after)->and($wrong)->toBe(0);
})->with([
    'a reading' => ["UPDATE readings SET actual = 40 WHERE kpi_unit_id = {LEAK} AND period = '2026-07-01'"],
    'a reading that others are worked out from' => ["UPDATE readings SET actual = 9999 WHERE kpi_unit_id = {SYS-IN} AND period = '2026-08-01'"],
    'a reading that is gathered above' => ["UPDATE readings SET actual = actual + 50 FROM kpi_unit JOIN kpis ON kpis.id = kpi_id WHERE kpi_unit.id = kpi_unit_id AND code = 'Z-COLOUR' AND period = '2026-08-01'"],
    'a reading that goes' => ["DELETE FROM readings WHERE kpi_unit_id = {BURSTS} AND period = '2026-08-01'"],
    'a target of a later month' => ["UPDATE targets SET target = 99 WHERE kpi_unit_id = {RENEWED} AND period = '2027-01-01'"],
    'a target of the year' => ['INSERT INTO year_targets (kpi_unit_id, year, target) VALUES ({NIGHT}, 2026, 1)'],
    'a note' => ["DELETE FROM notes WHERE kpi_unit_id = {LEAK} AND period = '2026-08-01'"],
    'a call' => ["INSERT INTO calls (kpi_unit_id, period, span, status, reason, over) VALUES ({LEAK}, '2026-08-01', 'month', 'green', 'x', 64.9)"],
    'a rule set' => ['UPDATE rule_sets SET amber = 50 WHERE kpi_id = (SELECT kpi_id FROM kpi_unit WHERE id = {LEAK})'],
    'a definition' => ["UPDATE kpis SET accumulation = 'latest' WHERE code = 'LEAK'"],
    'where it is measured' => ["UPDATE kpi_unit SET measured_to = '2026-07-01' WHERE id = {LEAK}"],
    'a zone’s figures' => ["UPDATE readings SET actual = 1 FROM kpi_unit JOIN kpis ON kpis.id = kpi_id WHERE kpi_unit.id = kpi_unit_id AND code = 'Z-LEAK' AND period = '2026-08-01'"],
]);

it('finds what has drifted, and puts it right', function () {
    keepNetwork();
    $leak = $this->measuredId('LEAK');
    DB::table('assessed_months')->where('kpi_unit_id', $leak)->where('month', '2026-08-01')->update(['statuses' => 'gggg']);
    $this->artisan('assessments:check')->expectsOutputToContain('1 of them wrong')->assertFailed();
    $this->artisan('assessments:check')->assertSuccessful();
    keepNetwork();
    expect(DB::table('assessed_months')->where('kpi_unit_id', $leak)->where('month', '2026-08-01')->value('statuses'))->toBe('rrra');
});

it('keeps nothing while somebody else is changing figures', function () {
    Config::set('database.connections.other', [...Config::array('database.connections.pgsql'), 'options' => []]);
    $other = DB::connection('other');
    $other->beginTransaction();
    $other->select('SELECT pg_advisory_xact_lock_shared(8171)');
    keepNetwork();
    expect(kept())->toBe(0);
    $other->rollBack();
    keepNetwork();
    expect(kept())->toBeGreaterThan(0);
});
