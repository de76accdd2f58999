<?php

declare(strict_types=1);

use App\Http\Problem;
use App\Models\User;
use Illuminate\Contracts\Hashing\Hasher;
use Illuminate\Database\QueryException;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Facades\Hash;

it('gives the application no right to the trail, the triggers or the tables themselves', function (string $statement) {
    // As the application signs in to the database.
    DB::statement('SET LOCAL SESSION AUTHORIZATION '.DB::getDatabaseName().'_app');
    try {
        DB::transaction(fn () => DB::statement($statement));
        $refused = 'not at all';
    } catch (QueryException $problem) {
        $refused = $problem->getCode();
    }
    DB::statement('RESET SESSION AUTHORIZATION');
    expect($refused)->toBe('42501');
})->with([
    "INSERT INTO audit_entries (subject) VALUES ('readings')",
    "UPDATE audit_entries SET reason = 'x'",
    'DELETE FROM audit_entries',
    'TRUNCATE audit_entries',
    'ALTER TABLE readings DISABLE TRIGGER ALL',
    "SET session_replication_role = 'replica'",
    'DROP TABLE notes',
    'CREATE TABLE mine (id int)',
    'ALTER FUNCTION kybernet_audit() SECURITY INVOKER',
]);

it('writes the trail also where the application asks to be left out of it', function () {
    $before = DB::table('audit_entries')->max('id') ?? 0;
    DB::statement('SET LOCAL SESSION AUTHORIZATION '.DB::getDatabaseName().'_app');
    DB::select("SELECT set_config('kybernet.audit', 'off', true)");
    DB::table('notes')->where('kpi_unit_id', $this->measuredId('LEAK'))->where('period', '2026-08-01')->update(['doing' => 'Unseen']);
    DB::statement('RESET SESSION AUTHORIZATION');

    expect(DB::table('audit_entries')->where('id', '>', $before)->value('subject'))->toBe('notes');
});

it('tells a database that is away as away, and nothing else', function (string $state, string $message, int $status) {
    $broken = new PDOException($message);
    $broken->errorInfo = [$state, 7, $message];
    $answer = Problem::from(new QueryException('pgsql', 'SELECT 1', [], $broken));

    expect($answer->getStatusCode())->toBe($status)->and($answer->headers->get('Retry-After'))->toBe($status === 503 ? '2' : null);
})->with([
    'refused' => ['08006', 'connection to server at "127.0.0.1" failed: Connection refused', 503],
    'shut down' => ['57P01', 'terminating connection due to administrator command', 503],
    'starting' => ['57P03', 'the database system is starting up', 503],
    'cut off' => ['HY000', 'server closed the connection unexpectedly', 503],
    'a value that fits nowhere' => ['22003', 'integer out of range', 422],
    'a mistake of ours' => ['42601', 'syntax error', 500],
]);

it('answers wrong identities and bytes as what is not there, or not understood', function (string $address, int $status) {
    $this->as('analyst')->getJson($address)->assertStatus($status)->assertHeader('Content-Type', 'application/problem+json')->assertHeader('Cache-Control', 'no-store, private');
})->with([
    ['/api/measurements/99999999999999999999?period=2026-08&span=month', 404], ['/api/measurements/x?period=2026-08&span=month', 404], ['/api/imports/-1', 404],
    ["/api/kpis/\u{FF2C}?period=2026-08", 404], ['/api/units/NET/scorecard?period[]=2026-08', 422], ['/api/units/NET/figures?period=2026-08&format=exe', 422],
    ['/api/texts?words=%FF%FE', 422], ['/api/texts?words=a%00b', 422],
]);

it('makes no session for whoever only looks', function () {
    $this->getJson('/api/session')->assertOk()->assertCookieMissing('kybernet')->assertCookieMissing('XSRF-TOKEN');
    $this->get('/scorecard')->assertOk()->assertCookieMissing('kybernet');
    $this->postJson('/api/session', ['email' => 'analyst@ostermere.example', 'password' => 'ostermere'])->assertOk()->assertCookie('kybernet');
});

it('ends other sessions when a password changes, and that of whoever is blocked', function () {
    $this->as('owner')->getJson('/api/kpis')->assertOk();
    User::query()->where('email', 'owner@ostermere.example')->update(['password' => Hash::make('another one, long enough')]);
    auth()->forgetGuards();
    $this->actingAs(User::query()->where('email', 'owner@ostermere.example')->firstOrFail())->getJson('/api/kpis')->assertUnauthorized();

    $this->as('head')->getJson('/api/kpis')->assertOk();
    User::query()->where('email', 'head@ostermere.example')->update(['blocked_at' => now()]);
    $this->as('head')->getJson('/api/kpis')->assertUnauthorized();
    $this->postJson('/api/session', ['email' => 'head@ostermere.example', 'password' => 'ostermere'])->assertStatus(422);
});

it('slows guessing down from anywhere, without locking out a known device', function () {
    $this->withQuickPasswords('ostermere');
    $try = fn (string $password, string $from) => $this->withServerVariables(['REMOTE_ADDR' => $from])->postJson('/api/session', ['email' => 'owner@ostermere.example', 'password' => $password]);
    $known = $try('ostermere', '10.0.0.1')->assertOk()->getCookie('kybernet_device', false)?->getValue();
    foreach (range(1, 50) as $guess) {
        $try("guess {$guess}", '10.0.1.'.intdiv($guess, 9));
    }
    $try('ostermere', '10.0.2.1')->assertStatus(429);
    $this->withCredentials()->withUnencryptedCookie('kybernet_device', (string) $known);
    $try('ostermere', '10.0.0.1')->assertOk();
});

it('takes as long for an address that nobody has as for a wrong password', function () {
    $hasher = Mockery::mock(Hasher::class);
    $hasher->shouldReceive('check')->twice()->andReturnFalse();
    app()->instance(Hasher::class, $hasher);
    foreach (['nobody@ostermere.example', 'analyst@ostermere.example'] as $email) {
        $this->postJson('/api/session', ['email' => $email, 'password' => 'x'])->assertStatus(422);
    }
});
