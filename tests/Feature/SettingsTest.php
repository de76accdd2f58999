<?php

declare(strict_types=1);

use App\Models\User;
use App\Organisation\Rights;
use Carbon\CarbonImmutable;
use Illuminate\Http\UploadedFile;
use Illuminate\Support\Facades\DB;
use Tests\World;

beforeEach(function () {
    $this->world();
    $this->set = function (array $change = []) {
        app()->forgetScopedInstances();
        $page = $this->being('administrator')->getJson('/api/settings')->assertOk()->json();
        app()->forgetScopedInstances();

        return $this->putJson('/api/settings', array_replace_recursive(array_diff_key($page, array_flip(['logo', 'mail', 'closed', 'readings', 'withoutSecondFactor', 'demonstration', 'exports', 'timeZones', 'currencies'])), $change));
    };
});

it('sets what the organisation sets for itself, in the trail, and refuses what cannot be beside its field', function () {
    ($this->set)(['timeZone' => 'Europe/Amsterdam', 'currency' => 'EUR', 'kpi' => ['amber' => '7.5', 'dueDay' => 8], 'sessionHours' => 4])->assertNoContent();
    app()->forgetScopedInstances();
    $this->getJson('/api/settings')->assertJsonPath('timeZone', 'Europe/Amsterdam')->assertJsonPath('kpi.amber', '7.5')->assertJsonPath('kpi.dueDay', 8)->assertJsonPath('version', 2);
    $this->being('analyst')->getJson('/api/settings/new-kpi')->assertOk()->assertJsonPath('amber', '7.5');
    $this->getJson('/api/changes?subject=settings')->assertOk()->assertJsonPath('changes.0.what', 'settings')->assertJsonFragment(['field' => 'time zone', 'before' => 'UTC', 'after' => 'Europe/Amsterdam']);
    foreach ([['yearStartMonth' => 13], ['timeZone' => 'Middle/Earth'], ['currency' => 'XQX'], ['sessionHours' => 0], ['sessionDays' => 366], ['trailYears' => 2, 'lawYears' => 6], ['accent' => '#ffe680'], ['accent' => 'red'], ['callers' => 'king'], ['kpi' => ['green' => '6', 'amber' => '5']], ['rollUp' => 'weighted', 'rollUpGreen' => '3'], ['name' => ' ']] as $wrong) {
        $pointer = ($this->set)($wrong)->assertStatus(422)->json('errors.0.pointer');
        expect($pointer)->toStartWith('/'.array_key_first($wrong === ['rollUp' => 'weighted', 'rollUpGreen' => '3'] ? ['rollUpGreen' => 0] : $wrong));
    }
});

it('moves the start of the year only while no month is closed', function () {
    ($this->set)(['yearStartMonth' => 7])->assertNoContent();
    $this->being('analyst')->putJson('/api/units/NORTH/closing?period=2026-06')->assertOk();
    ($this->set)(['yearStartMonth' => 1])->assertStatus(422)->assertJsonPath('errors.0.pointer', '/yearStartMonth');
    ($this->set)(['currency' => 'EUR'])->assertNoContent();
});

it('lets nobody write over settings that somebody else has changed', function () {
    ($this->set)(['currency' => 'EUR'])->assertNoContent();
    ($this->set)(['currency' => 'USD', 'version' => 1])->assertConflict();
});

it('says who may call a status', function (string $callers, string $who) {
    DB::table('installation')->update(['callers' => $callers]);
    app()->forgetScopedInstances();
    $north = World::person('head')->grants->sole()->unit_id;
    expect(implode('', array_map(fn (string $role): string => app(Rights::class)->mayCall(World::person($role), $north) ? $role[0] : '', ['analyst', 'head', 'owner'])))->toBe($who);
})->with([['analyst', 'a'], ['head', 'ah'], ['nobody', '']]);

it('lets sessions last as long as is set', function () {
    DB::table('installation')->update(['session_hours' => 3]);
    $this->postJson('/api/session', ['email' => 'x@y.example', 'password' => 'x']);
    expect(config('session.lifetime'))->toBe(180);
});

it('ends a session that began longer ago than anybody stays', function () {
    DB::table('installation')->update(['session_days' => 2]);
    $this->being('analyst')->getJson('/api/settings')->assertOk();
    CarbonImmutable::setTestNow(now()->addDay());
    app()->forgetScopedInstances();
    $this->getJson('/api/settings')->assertOk();
    CarbonImmutable::setTestNow(now()->addDays(2));
    app()->forgetScopedInstances();
    $this->getJson('/api/settings')->assertUnauthorized();
});

it('ends what the trail keeps no longer, says so in it, and nothing else', function () {
    DB::table('audit_entries')->insert([['subject' => 'kpis', 'at' => now()->subYears(8)], ['subject' => 'kpis', 'at' => now()->subYears(3)]]);
    $end = fn (): int => DB::scalar('SELECT kybernet_end_trail()');
    expect($end())->toBe(0);
    ($this->set)(['trailYears' => 7, 'lawYears' => 6])->assertNoContent();
    expect($end())->toBe(1)->and($end())->toBe(0)->and(DB::table('audit_entries')->where('at', '<', now()->subYear())->count())->toBe(1);
    $this->getJson('/api/changes?subject=settings')->assertJsonPath('changes.0.what', 'trail')->assertJsonPath('changes.0.fields.0', ['field' => 'ended', 'before' => '', 'after' => '1']);
});

describe('a mail server', function () {
    beforeEach(function () {
        $this->server = fn (array $change = []) => $this->being('administrator')->putJson('/api/settings/mail', [...['host' => '127.0.0.1', 'port' => 1, 'user' => '', 'password' => null, 'from' => 'kybernet@world.example', 'version' => DB::table('installation')->value('version')], ...$change]);
        $this->kept = function (): array {
            app()->forgetScopedInstances();

            return $this->getJson('/api/settings')->json('mail');
        };
    });

    it('is set on the screen, its password kept and never shown, and not for another server', function () {
        ($this->server)(['user' => 'post', 'password' => 'a secret of theirs'])->assertNoContent();
        expect(($this->kept)())->toBe(['host' => '127.0.0.1', 'port' => 1, 'user' => 'post', 'hasPassword' => true, 'from' => 'kybernet@world.example', 'ofPlace' => false])
            ->and(DB::table('installation')->value('mail_secret'))->not->toContain('a secret')
            ->and(DB::table('audit_entries')->whereRaw("coalesce(after::text, '') || coalesce(before::text, '') LIKE '%mail_secret%'")->count())->toBe(0);
        ($this->server)(['user' => 'post', 'port' => 2])->assertNoContent();
        expect(($this->kept)()['hasPassword'])->toBeTrue();
        ($this->server)(['user' => 'post', 'host' => 'elsewhere.example'])->assertNoContent();
        expect(($this->kept)()['hasPassword'])->toBeFalse();
        ($this->server)(['version' => 1])->assertConflict();
        foreach ([['host' => 'http://x/'], ['port' => 0], ['from' => ''], ['from' => 'nobody']] as $wrong) {
            ($this->server)($wrong)->assertStatus(422)->assertJsonPath('errors.0.pointer', '/'.array_key_first($wrong));
        }
    });

    it('is tried: what it says is told, and a mail that it takes has come', function () {
        $this->being('administrator')->postJson('/api/settings/mail/trial')->assertStatus(422)->assertJsonPath('errors.0.detail', 'No server is set.');
        ($this->server)()->assertNoContent();
        app()->forgetScopedInstances();
        expect($this->postJson('/api/settings/mail/trial')->assertStatus(422)->json('errors.0.detail'))->toStartWith('It did not go through.');

        $heard = (string) tempnam(sys_get_temp_dir(), 'mail');
        $server = proc_open([PHP_BINARY, __DIR__.'/../smtp.php', $heard], [1 => ['pipe', 'w']], $pipes) ?: throw new RuntimeException('No server.');
        ($this->server)(['port' => (int) fgets($pipes[1]), 'user' => 'post', 'password' => 'open sesame'])->assertNoContent();
        app()->forgetScopedInstances();
        $this->postJson('/api/settings/mail/trial')->assertNoContent();
        app()->forgetScopedInstances();
        proc_terminate($server, SIGKILL);
        expect((string) file_get_contents($heard))->toContain('AUTH', 'MAIL FROM:<kybernet@world.example>', 'RCPT TO:<administrator@world.example>', 'Subject: A trial from Kybernet');
    });
});

describe('a logo', function () {
    it('is taken, had by everybody who is signed in, and removed', function () {
        $send = fn (string $bytes) => $this->being('administrator')->postJson('/api/logo', ['file' => UploadedFile::fake()->createWithContent('logo.png', $bytes)]);
        $image = imagecreatetruecolor(40, 20) ?: throw new RuntimeException('No picture.');
        ob_start();
        imagepng($image);
        $png = (string) ob_get_clean();
        $send($png)->assertNoContent();
        $address = $this->being('reader')->getJson('/api/session')->json('logo');
        $this->get($address)->assertOk()->assertHeader('Content-Type', 'image/png')->assertContent($png);
        foreach (['<svg xmlns="http://www.w3.org/2000/svg"><script>alert(1)</script></svg>', substr($png, 0, 40), "GIF89a\1\0\1\0\0\0\0;", str_repeat('x', 600_000)] as $wrong) {
            $send($wrong)->assertStatus(422)->assertJsonPath('errors.0.pointer', '/file');
        }
        $this->deleteJson('/api/logo')->assertNoContent();
        $this->getJson('/api/logo')->assertNotFound();
        expect(DB::table('audit_entries')->where('subject', 'logos')->count())->toBe(2)->and(DB::table('audit_entries')->where('subject', 'logos')->whereRaw("jsonb_exists(after, 'bytes')")->count())->toBe(0);
    });
});

describe('programs', function () {
    beforeEach(function () {
        $this->token = fn (array $change = []): string => $this->being('administrator')->postJson('/api/tokens', [...['name' => 'Meter  feed', 'unit' => 'NORTH', 'writes' => true, 'until' => '2026-12-31'], ...$change])->assertCreated()->json('token');
        $this->come = function (string $token): static {
            auth()->forgetGuards();
            auth()->shouldUse('web');
            $this->flushSession();
            app()->forgetScopedInstances();

            return $this->withToken($token);
        };
        $this->write = fn (string $token, array ...$readings) => ($this->come)($token)->putJson('/api/programs/readings', ['readings' => array_map(fn (array $reading): array => array_combine(['kpi', 'unit', 'period', 'actual'], $reading), $readings)]);
    });

    it('see and write what their token says, and are named in the trail', function () {
        $token = ($this->token)();
        expect(DB::table('tokens')->value('hash'))->toBe(hash('sha256', $token))->and($token)->toStartWith('kyb_');
        ($this->write)($token, ['FLOW', 'NORTH', '2026-07', '14.25'], ['SALES', 'N1', '2026-07', '7'], ['MOOD', 'NORTH', '2026-06', ''])->assertOk()->assertJsonPath('*.outcome', ['saved', 'saved', 'same']);
        ($this->write)($token, ['FLOW', 'NORTH', '2026-07', '14.25'])->assertOk()->assertJsonPath('0.outcome', 'same');
        expect(DB::table('readings')->where('kpi_unit_id', World::id('FLOW', 'NORTH'))->where('period', '2026-07-01')->value('actual'))->toBe('14.25000000');
        ($this->come)($token)->getJson('/api/programs/units/NORTH/scorecard?period=2026-07&span=month')->assertOk();
        ($this->come)($token)->get('/api/programs/units/N1/figures?period=2026-07&format=csv')->assertOk();
        ($this->come)($token)->getJson('/api/programs/kpis')->assertOk()->assertJsonMissing(['code' => 'FAR']);
        expect(($this->come)('')->being('analyst')->getJson('/api/changes?subject=reading')->json('changes.0.by'))->toBe('Meter feed')
            ->and($this->being('administrator')->getJson('/api/tokens')->json('0'))->toMatchArray(['name' => 'Meter feed', 'unit' => 'North', 'writes' => true, 'state' => 'good', 'by' => 'Administrator'])
            ->and($this->getJson('/api/tokens')->json('0.used'))->not->toBeNull();
    });

    it('write all of a request or nothing of it, and are told what is wrong with which', function () {
        $token = ($this->token)();
        $answer = ($this->write)($token, ['FLOW', 'NORTH', '2026-07', '20'], ['FAR', 'SOUTH', '2026-07', '1'], ['RATIO', 'NORTH', '2026-07', '1'], ['MOOD', 'NORTH', '2026-07', '3'], ['FLOW', 'NORTH', '2026-07', '21'], ['FLOW', 'NORTH', '2027-07', '1'], ['FLOW', 'NORTH', '2026-06', '1001'])->assertStatus(422);
        expect(array_column($answer->json('errors'), 'pointer'))->toEqualCanonicalizing(['/readings/1', '/readings/2', '/readings/3', '/readings/4', '/readings/5', '/readings/6'])
            ->and($answer->json('errors.0.detail'))->toBe('There is no KPI FAR in SOUTH that this token may see.')
            ->and(DB::table('readings')->where('kpi_unit_id', World::id('FLOW', 'NORTH'))->where('period', '2026-07-01')->value('actual'))->toBe('13.00000000');
        ($this->write)($token, ['FLOW', 'NORTH', '2026-07', '1,5'])->assertStatus(422)->assertJsonPath('errors.0.pointer', '/readings/0/actual');
    });

    it('come no longer with a token that is over, revoked or none, and never as people do', function (Closure $spoil) {
        $token = $spoil($this, ($this->token)());
        ($this->come)($token)->getJson('/api/programs/kpis')->assertUnauthorized();
        ($this->write)($token, ['FLOW', 'NORTH', '2026-07', '1'])->assertUnauthorized();
    })->with([
        'over' => [function ($test, string $token) {
            CarbonImmutable::setTestNow('2027-01-01 09:00');

            return $token;
        }],
        'revoked' => [function ($test, string $token) {
            $test->being('administrator')->deleteJson('/api/tokens/'.DB::table('tokens')->value('id'))->assertNoContent();

            return $token;
        }],
        'another' => [fn ($test, string $token) => "{$token}x"],
    ]);

    it('stay within what they were given', function () {
        $reads = ($this->token)(['writes' => false]);
        ($this->write)($reads, ['FLOW', 'NORTH', '2026-07', '1'])->assertForbidden();
        ($this->come)($reads)->getJson('/api/programs/units/SOUTH/scorecard?period=2026-07&span=month')->assertNotFound();
        ($this->come)($reads)->getJson('/api/kpis')->assertUnauthorized();
        ($this->come)('')->postJson('/api/session', ['email' => User::query()->where('is_program', true)->value('email'), 'password' => 'x'])->assertStatus(422);
        $this->being('administrator')->postJson('/api/tokens', ['name' => 'x', 'unit' => 'NORTH', 'writes' => false, 'until' => '2030-01-01'])->assertStatus(422)->assertJsonPath('errors.0.pointer', '/until');
        expect(array_column($this->getJson('/api/people')->json(), 'name'))->not->toContain('Meter feed');
        // Nobody comes in as it, and nobody hands it a duty.
        $program = User::query()->where('is_program', true)->sole();
        $link = explode('#', $this->postJson("/api/people/{$program->id}/link")->json('link'))[1];
        $this->postJson('/api/people/'.World::person('owner')->id.'/leaving', ['to' => $program->id])->assertStatus(422);
        auth()->forgetGuards();
        $this->getJson("/api/entry?link={$link}")->assertJsonPath('works', false);
    });
});

it('puts the demonstration away as a whole, for an organisation of one’s own, and nothing else ever', function () {
    $this->being('administrator')->deleteJson('/api/demonstration')->assertStatus(422);
    DB::table('installation')->update(['is_demonstration' => true]);
    app()->forgetScopedInstances();
    $this->deleteJson('/api/demonstration', ['name' => 'Other'])->assertStatus(422);
    $link = $this->deleteJson('/api/demonstration', ['name' => 'Whole'])->assertOk()->json('link');
    expect(DB::table('units')->count() + DB::table('users')->count() + DB::table('readings')->count() + DB::table('audit_entries')->count())->toBe(0);
    auth()->forgetGuards();
    app()->forgetScopedInstances();
    $this->getJson('/api/beginning?link='.explode('#', $link)[1])->assertJsonPath('works', true);
});
