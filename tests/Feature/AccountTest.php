<?php

declare(strict_types=1);

use App\People\ForgottenJob;
use App\People\TimeCode;
use Carbon\CarbonImmutable;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Facades\Mail;
use Illuminate\Support\Facades\Queue;
use Tests\World;

beforeEach(fn () => $this->world());

const SECRET_WORDS = 'nine herons over reeds';

/** A browser that keeps its sessions in the database, as people's do. */
function withSessions(): void
{
    config(['session.driver' => 'database']);
    app()->forgetInstance('session');
    app()->forgetInstance('session.store');
}

// RFC 6238, appendix B: 8 digits, seeds of as many bytes as the hash.
it('makes the time codes of RFC 6238', function (int $seconds, string $sha1, string $sha256, string $sha512) {
    $seed = fn (int $bytes): string => substr(str_repeat('1234567890', 7), 0, $bytes);
    $step = TimeCode::step($seconds);
    expect((new TimeCode($seed(20), 8, 'sha1'))->at($step))->toBe($sha1)
        ->and((new TimeCode($seed(32), 8, 'sha256'))->at($step))->toBe($sha256)
        ->and((new TimeCode($seed(64), 8, 'sha512'))->at($step))->toBe($sha512);
})->with([
    [59, '94287082', '46119246', '90693936'], [1111111109, '07081804', '68084774', '25091201'], [1111111111, '14050471', '67062674', '99943326'],
    [1234567890, '89005924', '91819424', '93441116'], [2000000000, '69279037', '90698825', '38618901'], [20000000000, '65353130', '77737706', '47863826'],
]);

// RFC 4648, section 10, without the padding.
it('writes secrets as RFC 4648 does', function (string $bytes, string $text) {
    expect(TimeCode::base32($bytes))->toBe($text)->and(TimeCode::bytes($text))->toBe($bytes);
})->with([['f', 'MY'], ['fo', 'MZXQ'], ['foo', 'MZXW6'], ['foob', 'MZXW6YQ'], ['fooba', 'MZXW6YTB'], ['foobar', 'MZXW6YTBOI']]);

it('takes the code of now and of the steps beside it, and none twice', function () {
    $code = new TimeCode('12345678901234567890');
    $now = 1_700_000_010;
    $step = TimeCode::step($now);
    foreach ([-1, 0, 1] as $beside) {
        expect($code->stepOf($code->at($step + $beside), $now, 0))->toBe($step + $beside);
    }
    expect($code->stepOf($code->at($step + 2), $now, 0))->toBeNull()->and($code->stepOf($code->at($step), $now, $step))->toBeNull();
});

describe('a second factor', function () {
    beforeEach(function () {
        World::person('owner')->update(['password' => SECRET_WORDS]);
        $this->code = fn (int $later = 0): string => TimeCode::ofSecret((string) World::person('owner')->second_factor)->at(TimeCode::step(CarbonImmutable::now()->getTimestamp()) + $later);
        $this->sign = function (string $code = '', string $password = SECRET_WORDS) {
            auth()->forgetGuards();
            $this->flushSession();

            return $this->postJson('/api/session', ['email' => 'owner@world.example', 'password' => $password, 'code' => $code]);
        };
        $this->begin = function (): array {
            $this->being('owner')->postJson('/api/account/second-factor')->assertCreated();

            return $this->putJson('/api/account/second-factor', ['code' => ($this->code)()])->assertOk()->json('codes');
        };
    });

    it('is asked for once a code of it was given, and only after the password', function () {
        $secret = $this->being('owner')->postJson('/api/account/second-factor')->assertCreated()->json();
        expect($secret['address'])->toStartWith('otpauth://totp/Kybernet%3Aowner%40world.example?secret='.$secret['secret'])
            ->and(DB::table('users')->where('email', 'owner@world.example')->value('second_factor'))->not->toContain($secret['secret']);
        ($this->sign)()->assertOk();
        $this->putJson('/api/account/second-factor', ['code' => '000000'])->assertStatus(422)->assertJsonPath('errors.0.pointer', '/code');
        $this->putJson('/api/account/second-factor', ['code' => ($this->code)()])->assertOk()->assertJsonCount(10, 'codes');

        ($this->sign)('', 'wrong')->assertJsonPath('errors.0.pointer', '/password');
        ($this->sign)()->assertStatus(422)->assertJsonPath('errors.0.pointer', '/code');
        // The one that set it up was used.
        ($this->sign)(($this->code)())->assertStatus(422);
        ($this->sign)(($this->code)(1))->assertOk();
        ($this->sign)(($this->code)(1))->assertStatus(422);
    });

    it('lets in with a recovery code, each once, however it is written', function () {
        $codes = ($this->begin)();
        ($this->sign)(strtoupper(str_replace('-', ' ', $codes[3])))->assertOk();
        $this->getJson('/api/account')->assertJsonPath('recoveryCodes', 9);
        ($this->sign)($codes[3])->assertStatus(422);
        expect(DB::table('recovery_codes')->pluck('hash')->implode(' '))->not->toContain(str_replace('-', '', $codes[0]));
    });

    it('is taken off with the password, or by an administrator, and is no secret of the trail', function () {
        ($this->begin)();
        $this->deleteJson('/api/account/second-factor', ['password' => 'wrong'])->assertStatus(422);
        $this->deleteJson('/api/account/second-factor', ['password' => SECRET_WORDS])->assertNoContent();
        ($this->sign)()->assertOk();
        ($this->begin)();
        $this->being('analyst')->deleteJson('/api/people/'.World::person('owner')->id.'/second-factor')->assertNoContent();
        ($this->sign)()->assertOk();
        expect(DB::table('audit_entries')->whereRaw("coalesce(after, before) ?? 'second_factor'")->exists())->toBeFalse();
    });

    it('can be required: until there is one, nothing else is answered', function () {
        DB::table('installation')->update(['needs_second_factor' => true]);
        app()->forgetScopedInstances();
        $this->being('owner')->getJson('/api/session')->assertOk()->assertJsonPath('user.needsSecondFactor', true);
        $this->getJson('/api/kpis')->assertForbidden()->assertJsonPath('type', '/problems/second-factor');
        ($this->begin)();
        $this->getJson('/api/kpis')->assertOk();
    });
});

it('lists where somebody is signed in, and ends one, the others, or all', function () {
    World::person('owner')->update(['password' => SECRET_WORDS]);
    withSessions();
    $enter = function (string $agent): string {
        auth()->forgetGuards();
        $answer = $this->withHeader('User-Agent', $agent)->postJson('/api/session', ['email' => 'owner@world.example', 'password' => SECRET_WORDS])->assertOk();

        return $answer->getCookie(config('session.cookie'), true)->getValue();
    };
    $phone = $enter('Mozilla/5.0 (iPhone; CPU iPhone OS 17_0) AppleWebKit/605 Version/17 Safari/604');
    $desk = $enter('Mozilla/5.0 (X11; Linux x86_64) AppleWebKit/537 Chrome/120 Safari/537');
    expect($phone)->not->toBe($desk)->and(DB::table('sessions')->where('user_id', World::person('owner')->id)->count())->toBe(2);
    $as = function (string $session) {
        auth()->forgetGuards();
        session()->flush();

        return $this->withCredentials()->withCookie(config('session.cookie'), $session);
    };
    $found = $as($desk)->getJson('/api/account')->assertOk()->json('sessions');
    expect(array_column($found, 'device'))->toEqualCanonicalizing(['Safari on iPhone', 'Chrome on Linux'])->and(json_encode($found))->not->toContain($phone)->not->toContain($desk);
    $other = array_values(array_filter($found, fn (array $line): bool => ! $line['here']))[0];
    $as($desk)->deleteJson("/api/account/sessions/{$other['id']}")->assertNoContent();
    $as($phone)->getJson('/api/kpis')->assertUnauthorized();
    $again = $enter('curl/8');
    $as($desk)->deleteJson('/api/account/sessions')->assertNoContent();
    $as($again)->getJson('/api/kpis')->assertUnauthorized();
    $as($desk)->getJson('/api/kpis')->assertOk();
    app(App\People\SavePerson::class)->block(World::person('owner'), true);
    expect(DB::table('sessions')->where('user_id', World::person('owner')->id)->exists())->toBeFalse();
});

describe('a forgotten password', function () {
    it('is answered in the same way, with the same work, whoever asks', function (string $email) {
        Queue::fake();
        DB::enableQueryLog();
        $this->postJson('/api/forgotten', ['email' => $email])->assertNoContent();
        expect(array_filter(DB::getQueryLog(), fn (array $query): bool => str_contains($query['query'], 'users')))->toBe([]);
        Queue::assertPushed(ForgottenJob::class, 1);
    })->with(['known' => 'Owner@World.example', 'unknown' => 'nobody@world.example']);

    it('is shown to administrators where nobody can be written to, until a link answers it', function () {
        $this->postJson('/api/forgotten', ['email' => 'owner@world.example'])->assertNoContent();
        $line = fn (): array => array_values(array_filter($this->being('analyst')->getJson('/api/people')->json(), fn (array $person): bool => $person['email'] === 'owner@world.example'))[0];
        expect($line()['asked'])->not->toBeNull()->and(DB::table('entry_links')->count())->toBe(0);
        $link = explode('#', $this->postJson('/api/people/'.World::person('owner')->id.'/link')->assertCreated()->assertJsonPath('sent', false)->json('link'))[1];
        auth()->forgetGuards();
        $this->postJson('/api/entry', ['link' => $link, 'password' => SECRET_WORDS])->assertNoContent();
        expect($line()['asked'])->toBeNull();
    });

    it('is answered by e-mail where there is a server, to nobody else', function () {
        config(['mail.mailers.smtp.host' => 'mail.example', 'mail.default' => 'array']);
        $this->postJson('/api/forgotten', ['email' => 'nobody@world.example'])->assertNoContent();
        $this->postJson('/api/forgotten', ['email' => 'OWNER@world.example'])->assertNoContent();
        $sent = Mail::mailer('array')->getSymfonyTransport()->messages();
        expect($sent)->toHaveCount(1)->and($sent[0]->getOriginalMessage()->getTo()[0]->getAddress())->toBe('owner@world.example');
        // An address that is kept with capitals is written to as well.
        $head = World::person('head');
        DB::table('users')->where('id', $head->id)->update(['email' => 'Head@World.example']);
        $this->being('analyst')->postJson("/api/people/{$head->id}/link")->assertCreated()->assertJsonPath('sent', true);
        expect(Mail::mailer('array')->getSymfonyTransport()->messages()->last()->getOriginalMessage()->getTo()[0]->getAddress())->toBe('Head@World.example');
        auth()->forgetGuards();
        preg_match('/enter#(\S+)/', $sent[0]->getOriginalMessage()->getTextBody(), $link);
        $this->getJson("/api/entry?link={$link[1]}")->assertJsonPath('works', true)->assertJsonPath('name', 'Owner');
    });
});

it('hands over what was somebody’s to answer for, and lets them in no longer, in one step', function () {
    [$owner, $head] = [World::person('owner'), World::person('head')];
    DB::table('actions')->insert(['kpi_unit_id' => World::id('FLOW', 'NORTH'), 'period' => '2026-07-01', 'what' => 'Dig', 'who' => 'owner', 'due' => '2026-12-01', 'state' => 'open', 'outcome' => '']);
    $this->being('analyst')->getJson("/api/people/{$owner->id}/duties")->assertOk()
        ->assertJsonPath('kpis.*.code', ['FLOW', 'MOOD'])->assertJsonPath('roles.0', ['code' => '', 'what' => 'owner', 'unit' => 'North'])->assertJsonPath('actions.0.what', 'Dig');
    $this->postJson("/api/people/{$owner->id}/leaving", ['to' => $owner->id])->assertStatus(422)->assertJsonPath('errors.0.pointer', '/to');
    $this->postJson("/api/people/{$owner->id}/leaving", ['to' => $head->id])->assertNoContent();
    expect(DB::table('kpi_unit')->where('owner_id', $head->id)->count())->toBe(2)->and(DB::table('actions')->value('who'))->toBe('Head')
        ->and($head->grants()->pluck('role')->map->value->all())->toBe(['head', 'owner'])->and($owner->refresh()->blocked_at)->not->toBeNull();
    $this->being('analyst')->getJson('/api/changes?subject=person')->assertJsonPath('changes.0.what', 'person');
});

it('arranges who stands in, for oneself or as an administrator, and takes it back', function () {
    [$owner, $head] = [World::person('owner'), World::person('head')];
    $arrange = fn (array $change = []) => $this->postJson("/api/people/{$owner->id}/stand-ins", [...['substitute' => $head->id, 'first' => '2026-08-21', 'last' => '2026-08-28'], ...$change]);
    $this->being('owner');
    foreach ([['substitute' => $owner->id], ['last' => '2026-08-20'], ['first' => '2026-08-01', 'last' => '2026-08-19'], ['substitute' => 0], ['first' => 'tomorrow']] as $wrong) {
        $arrange($wrong)->assertStatus(422);
    }
    $arrange()->assertNoContent();
    $arrange()->assertNoContent();
    $this->getJson('/api/account')->assertJsonCount(1, 'standIns')->assertJsonPath('standIns.0.answers', 'Head');
    $this->being('head')->getJson('/api/account')->assertJsonPath('standIns.0.away', 'Owner');
    $arrange()->assertForbidden();
    $id = $this->being('analyst')->getJson('/api/stand-ins')->assertOk()->json('0.id');
    $this->deleteJson("/api/people/{$owner->id}/stand-ins/{$id}")->assertNoContent();
    $this->getJson('/api/stand-ins')->assertExactJson([]);
});
