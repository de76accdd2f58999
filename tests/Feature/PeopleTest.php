<?php

declare(strict_types=1);

use App\Models\User;
use App\Organisation\Rights;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Facades\Hash;
use Tests\World;

beforeEach(function () {
    $this->world();
    $this->wanted = fn (array $change = []): array => [...['email' => 'New@World.example', 'name' => ' Nia  Holt ', 'roles' => [['role' => 'head', 'unit' => 'NORTH']]], ...$change];
    $this->invite = fn (array $change = []): string => explode('#', $this->being('analyst')->postJson('/api/people', ($this->wanted)($change))->assertCreated()->json('link'))[1];
    $this->stranger = function (): void {
        auth()->forgetGuards();
        $this->flushSession();
    };
});

const WORDS = 'nine herons over reeds';

it('invites somebody, who comes in with the link once and chooses a password', function () {
    $link = ($this->invite)();
    expect(User::query()->where('email', 'new@world.example')->sole())->name->toBe('Nia Holt')->joined_at->toBeNull()
        ->and(DB::table('entry_links')->value('hash'))->toBe(hash('sha256', $link));
    ($this->stranger)();
    $this->getJson("/api/entry?link={$link}")->assertExactJson(['works' => true, 'invited' => true, 'name' => 'Nia Holt', 'email' => 'new@world.example', 'organisation' => 'Whole']);
    $this->postJson('/api/entry', ['link' => $link, 'password' => 'nia.holt.2026'])->assertStatus(422)->assertJsonPath('errors.0.pointer', '/password');
    $before = session()->getId();
    $this->postJson('/api/entry', ['link' => $link, 'password' => WORDS])->assertNoContent();
    expect(session()->getId())->not->toBe($before);
    $this->getJson('/api/session')->assertJsonPath('user.name', 'Nia Holt')->assertJsonPath('user.administers', false);

    ($this->stranger)();
    $this->getJson("/api/entry?link={$link}")->assertJsonPath('works', false)->assertJsonPath('email', '');
    $this->postJson('/api/entry', ['link' => $link, 'password' => 'another one of words'])->assertStatus(422)->assertJsonPath('errors.0.pointer', '/link');
    $this->postJson('/api/session', ['email' => 'NEW@world.example', 'password' => WORDS])->assertOk();
    expect(DB::table('audit_entries')->where('subject', 'users')->where('after->email', 'new@world.example')->pluck('after')->implode(' '))->not->toContain('password')->not->toBe('');
});

it('lets nobody in with a link that is old, replaced or of somebody who is blocked', function (Closure $spoil) {
    $link = ($this->invite)();
    $spoil($this, User::query()->where('email', 'new@world.example')->sole());
    ($this->stranger)();
    $this->getJson("/api/entry?link={$link}")->assertJsonPath('works', false);
    $this->postJson('/api/entry', ['link' => $link, 'password' => WORDS])->assertStatus(422)->assertJsonPath('errors.0.pointer', '/link');
})->with([
    'after seven days' => [fn ($test, User $user) => DB::table('entry_links')->update(['until' => now()->subSecond()])],
    'a newer one was made' => [fn ($test, User $user) => $test->postJson("/api/people/{$user->id}/link")->assertCreated()],
    'blocked' => [fn ($test, User $user) => $test->putJson("/api/people/{$user->id}/block", ['blocked' => true])->assertNoContent()],
]);

it('works seven days for the invited, and thirty minutes for whoever had a password', function () {
    $until = fn (): float => abs(Carbon\CarbonImmutable::parse((string) DB::table('entry_links')->latest('until')->value('until'))->diffInMinutes(Carbon\CarbonImmutable::parse((string) DB::scalar('SELECT now()'))));
    ($this->invite)();
    expect($until())->toEqualWithDelta(7 * 24 * 60, 1);
    DB::table('entry_links')->delete();
    $this->postJson('/api/people/'.World::person('owner')->id.'/link')->assertCreated();
    expect($until())->toEqualWithDelta(30, 1);
});

it('refuses what cannot be, beside the field', function (array $change, string $pointer, string $words) {
    $answer = $this->being('analyst')->postJson('/api/people', ($this->wanted)($change))->assertStatus(422);
    expect(array_column($answer->json('errors'), 'pointer'))->toBe([$pointer])->and($answer->json('errors.0.detail'))->toContain($words);
})->with([
    'an address that is taken, in other letters' => [['email' => 'OWNER@world.example'], '/email', 'already'],
    'an address that is none' => [['email' => 'nia'], '/email', 'name@example.org'],
    'no name' => [['name' => ' '], '/name', 'called'],
    'a role that is none' => [['roles' => [['role' => 'king', 'unit' => 'NORTH']]], '/roles/0/role', 'come to do'],
    'a unit that is none' => [['roles' => [['role' => 'head', 'unit' => 'WEST']]], '/roles/0/unit', 'Choose the unit'],
    'no role' => [['roles' => []], '/roles', 'come to do'],
]);

it('changes what somebody may do from their next request on, and ends at once what the blocked have open', function () {
    $owner = World::person('owner');
    $this->being('analyst')->putJson("/api/people/{$owner->id}", ($this->wanted)(['email' => 'else@world.example', 'name' => 'Nora', 'roles' => [['role' => 'executive', 'unit' => 'ORG']]]))->assertOk()->assertJsonPath('roles', [['role' => 'executive', 'unit' => 'ORG']])->assertJsonPath('kpis', 2);
    expect($owner->refresh())->email->toBe('owner@world.example')->and(app(Rights::class)->seesAll($owner))->toBeTrue();
    $this->putJson("/api/people/{$owner->id}/block", ['blocked' => true])->assertNoContent();
    $this->being('owner')->getJson('/api/kpis')->assertStatus(401);
    $this->being('analyst')->putJson("/api/people/{$owner->id}/block", ['blocked' => false])->assertNoContent();
    $this->being('owner')->getJson('/api/kpis')->assertOk();
});

it('always keeps somebody who administers', function () {
    $analyst = World::person('analyst');
    $self = ($this->wanted)(['name' => 'Analyst', 'roles' => [['role' => 'analyst', 'unit' => 'ORG']]]);
    DB::table('grants')->where('user_id', World::person('administrator')->id)->delete();
    $this->being('analyst')->putJson("/api/people/{$analyst->id}/block", ['blocked' => true])->assertStatus(422)->assertJsonPath('errors.0.pointer', '/blocked');
    $this->putJson("/api/people/{$analyst->id}", $self)->assertStatus(422)->assertJsonPath('errors.0.pointer', '/roles');
    // An invited one cannot put anything right yet.
    ($this->invite)(['roles' => [['role' => 'administrator', 'unit' => 'NORTH']]]);
    $this->putJson("/api/people/{$analyst->id}", $self)->assertStatus(422);
    DB::table('users')->where('email', 'new@world.example')->update(['joined_at' => now()]);
    $this->putJson("/api/people/{$analyst->id}", $self)->assertOk();
});

it('changes the own password, with the one before, and tells people of people only to those who see all', function () {
    $user = World::person('owner');
    $user->update(['password' => WORDS]);
    $put = fn (string $current, string $password) => $this->being('owner')->putJson('/api/session/password', ['current' => $current, 'password' => $password]);
    $put('wrong', 'seven swans aswimming')->assertStatus(422)->assertJsonPath('errors.0.pointer', '/current');
    $put(WORDS, 'short')->assertStatus(422)->assertJsonPath('errors.0.pointer', '/password');
    $put(WORDS, 'seven swans aswimming')->assertNoContent();
    expect(Hash::check('seven swans aswimming', $user->refresh()->password))->toBeTrue();

    ($this->invite)();
    $this->being('analyst')->getJson('/api/changes?period=2026-07&subject=person')->assertJsonPath('changes.0.what', 'role')->assertJsonPath('changes.1.what', 'person');
    $this->being('head')->getJson('/api/changes?period=2026-07&subject=person')->assertJsonPath('changes', []);
});

it('lists everybody in as many queries, however many they are', function () {
    foreach (range(1, 30) as $number) {
        User::query()->forceCreate(['name' => "P{$number}", 'email' => "p{$number}@world.example", 'password' => 'x', 'joined_at' => now()])->grants()->create(['role' => 'owner', 'unit_id' => World::person('owner')->grants->sole()->unit_id]);
    }
    $this->being('analyst');
    DB::enableQueryLog();
    $found = $this->getJson('/api/people')->assertOk()->json();
    $queries = count(DB::getQueryLog());
    expect($found)->toHaveCount(User::query()->count())->and($queries)->toBeLessThan(8);
});

describe('a list of people', function () {
    it('is read with its cells in any order, a line for each role', function (string $list, array $expected) {
        $found = $this->being('analyst')->postJson('/api/people-lists/preview', ['list' => $list])->assertOk()->json();
        expect(array_map(fn (array $person): string => "{$person['what']} {$person['email']} {$person['name']}: ".implode(', ', array_map(fn (array $held): string => "{$held['role']} {$held['unit']}", $person['roles'])), $found))->toBe($expected);
    })->with([
        'from a sheet, with a head' => ["Name\tE-mail\tRole\tUnit\nNia Holt\tNia@x.example\tDepartment head\tnorth", ['new nia@x.example Nia Holt: head NORTH']],
        'with semicolons, the address first' => ['nia@x.example;reader;South;Nia Holt', ['new nia@x.example Nia Holt: reader SOUTH']],
        'with commas, a role for the whole' => ['Nia Holt,nia@x.example,executive', ['new nia@x.example Nia Holt: executive ORG']],
        'two roles' => ["Nia Holt;nia@x.example;owner;N1\nNia Holt;nia@x.example;reader;ORG", ['new nia@x.example Nia Holt: owner N1, reader ORG']],
        'who is there' => ["Owner;owner@world.example;owner;NORTH\nHead;HEAD@world.example;head;SOUTH", ['same owner@world.example Owner: owner NORTH', 'changed head@world.example Head: head SOUTH']],
        'what is missing' => ["Nia;nia@x.example\nTom;tom@;reader\nmia@x.example;reader", ['refused nia@x.example Nia: reader ORG', 'refused tom@ Tom: reader ORG', 'refused mia@x.example : reader ORG']],
    ]);

    it('is taken as a whole or not at all, and what is exported says nothing new', function () {
        $take = fn (string $list) => $this->being('analyst')->postJson('/api/people-lists', ['list' => $list]);
        $take("Nia;nia@x.example;reader\nTom;tom@x.example")->assertStatus(422)->assertJsonPath('errors.0.detail', 'Line 2: Say what they come to do: analyst, head, owner, executive, reader, auditor or administrator.');
        expect(User::query()->where('email', 'nia@x.example')->exists())->toBeFalse();
        $links = $take("Nia;nia@x.example;reader\nHead;head@world.example;head;SOUTH")->assertCreated()->json();
        expect($links)->toHaveCount(1)->and($links[0]['link']['link'])->toContain('/enter#')->and(World::person('head')->grants->sole()->unit->code)->toBe('SOUTH');
        $file = $this->get('/api/people/file?format=csv')->assertOk()->streamedContent();
        expect(array_unique(array_column($this->postJson('/api/people-lists/preview', ['list' => $file])->assertOk()->json(), 'what')))->toBe(['same']);
        $take("Analyst;analyst@world.example;analyst\nAdministrator;administrator@world.example;reader")->assertStatus(422);
    });
});
