<?php

declare(strict_types=1);

use App\Models\User;
use Illuminate\Support\Facades\Artisan;
use Illuminate\Support\Facades\DB;
use Tests\World;

/* What whoever runs an installation needs: health, numbers of requests, a proxy that knows people, commands. */

beforeEach(fn () => $this->world());

it('says that it is alive, and whether it is ready', function () {
    $this->get('/up')->assertOk()->assertSee('up');
    $this->getJson('/ready')->assertOk()->assertExactJson(['ready' => true, 'checks' => ['database' => true, 'migrations' => true, 'queue' => true, 'disk' => true]]);
    DB::table('jobs')->insert(['queue' => 'default', 'payload' => '{}', 'attempts' => 0, 'available_at' => time() - 900, 'created_at' => time() - 900]);
    $this->getJson('/ready')->assertStatus(503)->assertJsonPath('checks.queue', false);
    $this->artisan('doctor')->expectsOutputToContain('work in the background has been waiting for')->assertFailed();
    DB::table('jobs')->delete();
    DB::table('migrations')->where('migration', '2026_11_29_000003_unit_history')->delete();
    $this->getJson('/ready')->assertStatus(503)->assertJsonPath('checks.migrations', false);
});

it('gives every request a number, and takes one only where it is one', function (?string $given, string $pattern) {
    $answer = $this->withHeaders($given === null ? [] : ['X-Request-Id' => $given])->getJson('/api/session');
    expect($answer->headers->get('X-Request-Id'))->toMatch($pattern);
})->with([[null, '/^[0-9a-f]{16}$/'], ['proxy-0001-abcd', '/^proxy-0001-abcd$/'], ["x\nERROR forged", '/^[0-9a-f]{16}$/']]);

describe('a proxy that knows people', function () {
    beforeEach(function () {
        config(['kybernet.sign_in_header' => 'X-Remote-User', 'kybernet.sign_in_proxies' => '10.1.0.0/16,127.0.0.1']);
        $this->from = fn (string $address, array $headers = ['X-Remote-User' => 'Owner@World.example']) => $this->withServerVariables(['REMOTE_ADDR' => $address])->withHeaders($headers)->getJson('/api/session')->assertOk()->json('user.name');
    });

    it('is believed from its own addresses alone', function (string $address, array $headers, ?string $who) {
        expect(($this->from)($address, $headers))->toBe($who);
    })->with([
        'its own' => ['10.1.2.3', ['X-Remote-User' => 'Owner@World.example'], 'Owner'],
        'another' => ['10.2.0.1', ['X-Remote-User' => 'owner@world.example'], null],
        'another that says it is its own' => ['10.2.0.1', ['X-Remote-User' => 'owner@world.example', 'X-Forwarded-For' => '10.1.2.3'], null],
        'somebody who has no account' => ['10.1.2.3', ['X-Remote-User' => 'nobody@world.example'], null],
        'nobody' => ['10.1.2.3', [], null],
    ]);

    it('lets nobody in who is blocked, and is off until both are set', function () {
        DB::table('users')->where('email', 'owner@world.example')->update(['blocked_at' => now()]);
        expect(($this->from)('10.1.2.3'))->toBeNull();
        DB::table('users')->where('email', 'owner@world.example')->update(['blocked_at' => null]);
        config(['kybernet.sign_in_proxies' => '']);
        expect(($this->from)('127.0.0.1'))->toBeNull();
    });
});

it('has a command for what an administrator may need without a browser', function () {
    $roles = fn (string $email): array => User::query()->where('email', $email)->sole()->grants()->with('unit')->get()->map(fn ($grant): string => "{$grant->role->value} {$grant->unit->code}")->all();
    Artisan::call('person:add', ['email' => 'Nia@x.example', 'name' => 'Nia Holt', 'role' => 'head', 'unit' => 'NORTH']);
    expect($roles('nia@x.example'))->toBe(['head NORTH'])->and(Artisan::output())->toContain('/enter#');
    $this->artisan('person:add', ['email' => 'nia@x.example', 'name' => 'Nia', 'role' => 'head'])->assertFailed();
    $this->artisan('person:add', ['email' => 'mia@x.example', 'name' => 'Mia', 'role' => 'king'])->assertFailed();
    $this->artisan('person:role', ['email' => 'nia@x.example', 'role' => 'administrator'])->assertSuccessful();
    $this->artisan('person:role', ['email' => 'nia@x.example', 'role' => 'head', 'unit' => 'NORTH', '--take' => true])->assertSuccessful();
    expect($roles('nia@x.example'))->toBe(['administrator ORG']);
    Artisan::call('person:link', ['email' => 'OWNER@world.example']);
    auth()->forgetGuards();
    $this->getJson('/api/entry?link='.explode('#', trim(Artisan::output()))[1])->assertJsonPath('name', 'Owner');
    $this->artisan('person:block', ['email' => 'owner@world.example'])->assertSuccessful();
    expect(World::person('owner')->blocked_at)->not->toBeNull();
    $this->artisan('person:block', ['email' => 'owner@world.example', '--again' => true])->assertSuccessful();
    expect(World::person('owner')->blocked_at)->toBeNull();
    $this->artisan('person:link', ['email' => 'nobody@x.example'])->assertFailed();
    $this->artisan('doctor')->assertSuccessful();
});
