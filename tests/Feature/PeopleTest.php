<?php

declare(strict_types=1);

use App\Models\User;
use App\Organisation\Rights;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Facades\Hash;
use Tests\World;

beforeEach(function () {
    $this->world();
    $this->wanted = fn (array $change = []): array => [...['email' => 'New@World.example', 'name' => ' Nia  Holt ', 'role' => 'head', 'unit' => 'NORTH', 'administrator' => false], ...$change];
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
    'a role that is none' => [['role' => 'king'], '/role', 'come to do'],
    'a unit that is none' => [['unit' => 'WEST'], '/unit', 'Choose the unit'],
]);

it('changes what somebody may do from their next request on, and ends at once what the blocked have open', function () {
    $owner = World::person('owner');
    $this->being('analyst')->putJson("/api/people/{$owner->id}", ($this->wanted)(['email' => 'else@world.example', 'name' => 'Nora', 'role' => 'executive', 'unit' => 'SOUTH']))->assertOk()->assertJsonPath('role', 'executive')->assertJsonPath('kpis', 2);
    expect($owner->refresh())->email->toBe('owner@world.example')->and(app(Rights::class)->seesAll($owner))->toBeTrue();
    $this->putJson("/api/people/{$owner->id}/block", ['blocked' => true])->assertNoContent();
    $this->being('owner')->getJson('/api/kpis')->assertStatus(401);
    $this->being('analyst')->putJson("/api/people/{$owner->id}/block", ['blocked' => false])->assertNoContent();
    $this->being('owner')->getJson('/api/kpis')->assertOk();
});

it('always keeps somebody who administers', function () {
    $analyst = World::person('analyst');
    $this->being('analyst')->putJson("/api/people/{$analyst->id}/block", ['blocked' => true])->assertStatus(422)->assertJsonPath('errors.0.pointer', '/blocked');
    $self = ($this->wanted)(['name' => 'Analyst', 'role' => 'analyst', 'unit' => 'ORG']);
    $this->putJson("/api/people/{$analyst->id}", $self)->assertStatus(422)->assertJsonPath('errors.0.pointer', '/administrator');
    // An invited one cannot put anything right yet.
    ($this->invite)(['administrator' => true]);
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
    $this->being('analyst')->getJson('/api/changes?period=2026-07&subject=person')->assertJsonPath('changes.0.what', 'person');
    $this->being('head')->getJson('/api/changes?period=2026-07&subject=person')->assertJsonPath('changes', []);
});

it('lists everybody in two queries, however many they are', function () {
    foreach (range(1, 30) as $number) {
        User::query()->forceCreate(['name' => "P{$number}", 'email' => "p{$number}@world.example", 'password' => 'x', 'role' => 'owner', 'unit_id' => World::person('owner')->unit_id, 'joined_at' => now()]);
    }
    $this->being('analyst');
    DB::enableQueryLog();
    $found = $this->getJson('/api/people')->assertOk()->json();
    $queries = count(DB::getQueryLog());
    expect($found)->toHaveCount(User::query()->count())->and($queries)->toBeLessThan(6);
});
