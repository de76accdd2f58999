<?php

declare(strict_types=1);

use App\Models\Grant;
use App\Models\User;
use App\Support\Installation;
use Illuminate\Database\QueryException;
use Illuminate\Support\Facades\Artisan;
use Illuminate\Support\Facades\Config;
use Illuminate\Support\Facades\DB;

/*
 * An installation that began with an earlier version, brought up to date: its people keep what they could do, its figures
 * and closed months what they said.
 */

/** The last step of 0.2.0. */
const EARLIER = '2026_11_28_000008_people';

/** What somebody who began with 0.2.0 has. */
const DATA = <<<'SQL'
    SELECT set_config('kybernet.audit', 'off', false);
    UPDATE installation SET is_own = true, is_settled = true, time_zone = 'Europe/Amsterdam', currency = 'EUR', year_start_month = 1;
    INSERT INTO units (id, code, name, kind, parent_id, position) VALUES (1, 'HC', 'Harbour Clinics', 'organisation', NULL, 0), (2, 'QUAY', 'Quayside', 'department', 1, 1);
    INSERT INTO users (id, name, email, password, role, unit_id, is_administrator, joined_at) VALUES
        (1, 'Mara Quist', 'mara@harbour.example', 'x', 'analyst', 2, true, now()), (2, 'Tom Reed', 'tom@harbour.example', 'x', 'owner', 2, false, now()),
        (3, 'Ana Voss', 'ana@harbour.example', 'x', 'head', 2, false, now()), (4, 'Ben Ide', 'ben@harbour.example', 'x', 'executive', 2, false, now());
    INSERT INTO kpis (id, code, name, measure, decimals, department_id, level, polarity, accumulation, kind, frequency) VALUES (1, 'SEEN', 'Patients seen', '', 0, 2, 'departmental', 'higher', 'sum', 'entered', 'month');
    INSERT INTO rule_sets (kpi_id, valid_from, reference, measure, green, amber) VALUES (1, '2025-01-01', 'target', 'percent', 0, 5);
    INSERT INTO kpi_unit (id, kpi_id, unit_id, owner_id, position) VALUES (1, 1, 2, 2, 0);
    INSERT INTO readings (kpi_unit_id, period, actual, entered_by) VALUES (1, '2026-07-01', 1204, 2);
    INSERT INTO targets (kpi_unit_id, period, target) VALUES (1, '2026-07-01', 1200);
    INSERT INTO period_states (unit_id, period, closed_by) VALUES (2, '2026-07-01', 1), (1, '2026-07-01', 1);
    SELECT set_config('kybernet.audit', 'on', false);
    SQL;

beforeEach(function () {
    $this->former = Config::string('database.default');
    $this->place = Config::string('database.connections.pgsql.database').'_upgrade';
    // Beside the connection whose transaction takes back what tests do: databases are made outside of one.
    Config::set('database.connections.maker', [...Config::array('database.connections.pgsql'), 'options' => []]);
    DB::connection('maker')->statement("DROP DATABASE IF EXISTS {$this->place} WITH (FORCE)");
    DB::connection('maker')->statement("CREATE DATABASE {$this->place}");
    Config::set('database.connections.upgrade', [...Config::array('database.connections.pgsql'), 'options' => [], 'database' => $this->place]);
});

afterEach(function () {
    DB::setDefaultConnection($this->former);
    DB::purge('upgrade');
    DB::connection('maker')->statement("DROP DATABASE IF EXISTS {$this->place} WITH (FORCE)");
    DB::purge('maker');
});

it('keeps what people may do, what was entered and what was closed', function () {
    $steps = glob(database_path('migrations/*.php')) ?: [];
    $earlier = array_values(array_filter($steps, fn (string $step): bool => basename($step, '.php') <= EARLIER));
    expect(count($earlier))->toBeGreaterThan(10)->toBeLessThan(count($steps));
    Artisan::call('migrate', ['--database' => 'upgrade', '--path' => $earlier, '--realpath' => true, '--force' => true]);
    DB::connection('upgrade')->unprepared(DATA);
    Artisan::call('migrate', ['--database' => 'upgrade', '--force' => true]);

    DB::setDefaultConnection('upgrade');
    app()->forgetScopedInstances();
    $held = Grant::query()->orderBy('id')->with('unit')->get()->map(fn (Grant $grant): string => "{$grant->user_id} {$grant->role->value} {$grant->unit->code}")->all();
    // Analysts and executives had everything, wherever they belonged.
    expect($held)->toEqualCanonicalizing(['1 analyst HC', '1 administrator HC', '2 owner QUAY', '3 head QUAY', '4 executive HC']);

    $this->actingAs(User::query()->where('email', 'mara@harbour.example')->sole());
    $this->getJson('/api/session')->assertOk()->assertJsonPath('user.administers', true)->assertJsonPath('user.definesAll', true)->assertJsonPath('yearStartMonth', 1);
    $this->getJson('/api/units/QUAY/scorecard?period=2026-07&span=month')->assertOk()->assertJsonPath('groups.0.rows.0.status', 'green')->assertJsonPath('groups.0.rows.0.actual.digits', '1204');
    $this->putJson('/api/measurements/1/readings/2026-07', ['typed' => '1', 'version' => 1, 'note' => null])->assertStatus(422);
    $this->getJson('/api/settings')->assertOk()->assertJsonPath('currency', 'EUR')->assertJsonPath('closed', '2026-07');
    $this->getJson('/api/settings/new-kpi')->assertJsonPath('amber', '5');

    // Back, and forth again: a release can be gone back from.
    Artisan::call('migrate:rollback', ['--database' => 'upgrade', '--force' => true]);
    expect(DB::connection('upgrade')->table('users')->where('id', 3)->value('role'))->toBe('head')
        ->and(DB::connection('upgrade')->table('users')->where('is_administrator', true)->pluck('id')->all())->toBe([1]);
    expect(Artisan::call('migrate', ['--database' => 'upgrade', '--force' => true]))->toBe(0);
});

it('lets one of two begin who come with the link at the same time', function () {
    Artisan::call('migrate', ['--database' => 'upgrade', '--force' => true]);
    Config::set('database.connections.second', Config::array('database.connections.upgrade'));
    [$first, $second] = [new Installation(DB::connection('upgrade')), new Installation(DB::connection('second'))];
    $link = (string) $first->open();
    DB::connection('upgrade')->beginTransaction();
    expect($first->begin($link, 1, 'UTC', 'EUR', 'en-GB'))->toBeTrue();
    // The second waits for the first, and finds the link taken.
    DB::connection('second')->statement("SET lock_timeout = '200ms'");
    expect(fn () => $second->begin($link, 4, 'UTC', 'GBP', 'en-GB'))->toThrow(QueryException::class, 'lock timeout');
    DB::connection('upgrade')->table('units')->insert(['code' => 'HC', 'name' => 'Harbour Clinics', 'kind' => 'organisation', 'position' => 0]);
    DB::connection('upgrade')->commit();
    expect($second->begin($link, 4, 'UTC', 'GBP', 'en-GB'))->toBeFalse()->and((new Installation(DB::connection('second')))->currency())->toBe('EUR')->and($second->open())->toBeNull();
    DB::purge('second');
});
