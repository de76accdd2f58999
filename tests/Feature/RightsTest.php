<?php

declare(strict_types=1);

use App\Models\User;
use Illuminate\Routing\Route;
use Illuminate\Support\Facades\Route as Routes;

it('guards every route of the API by a policy', function () {
    $open = ['GET api/session', 'POST api/session', 'PATCH api/session', 'DELETE api/session', 'GET api/beginning', 'POST api/beginning', 'GET api/entry', 'POST api/entry', 'PUT api/session/password', 'POST api/forgotten',
        'GET api/account', 'PATCH api/account', 'POST api/account/second-factor', 'PUT api/account/second-factor', 'DELETE api/account/second-factor', 'DELETE api/account/sessions', 'DELETE api/account/sessions/{session}'];
    $unguarded = collect(Routes::getRoutes()->getRoutes())
        ->filter(fn (Route $route): bool => str_starts_with($route->uri(), 'api/'))
        ->reject(fn (Route $route): bool => in_array($route->methods()[0].' '.$route->uri(), $open, true))
        ->reject(fn (Route $route): bool => collect($route->middleware())->contains(fn (string $each): bool => str_starts_with($each, 'can:'))
            && in_array(str_starts_with($route->uri(), 'api/programs/') ? 'auth:program' : 'auth', $route->middleware(), true))
        ->map(fn (Route $route): string => $route->uri());

    // Who reads by a link has no account either: BriefingTest asks for it. A program that sends records has no account: the token is the right, and WaysTest asks for it.
    expect($unguarded->values()->all())->toBe(['api/reading', 'api/record-sets/{recordSet}/records', 'api/record-sets/{recordSet}/records/{recordLoad}']);
});

it('answers nobody who is not signed in', function (string $method, string $uri) {
    $this->json($method, $uri)->assertStatus(401)->assertHeader('Content-Type', 'application/problem+json')->assertJsonPath('title', 'You are not signed in');
})->with([
    ['GET', '/api/units/NET/scorecard?period=2026-08'],
    ['GET', '/api/kpis'],
    ['POST', '/api/kpis'],
    ['PATCH', '/api/session'],
]);

it('lets people enter only what is theirs', function (string $account, string $kpi, string $unit, int $status) {
    $measurement = self::measured($kpi, $unit);

    $this->as($account)->putJson("/api/measurements/{$measurement->id}/readings/2026-08", ['typed' => '1', 'version' => 0])->assertStatus($status);
    $this->as($account)->putJson("/api/measurements/{$measurement->id}/notes/2026-08", ['text' => 'because', 'outlook' => '', 'doing' => '', 'version' => 0])->assertStatus($status);
})->with([
    'an analyst, anything' => ['analyst', 'FLOODING', 'WST', 200],
    'an owner, their own' => ['owner', 'NIGHT', 'NET', 200],
    'an owner, not another department' => ['owner', 'FLOODING', 'WST', 404],
    'a head, their zones' => ['head', 'Z-COLOUR', 'Z-SANDRY', 200],
    'a head, not another department' => ['head', 'FLOODING', 'WST', 404],
    'an executive, nothing' => ['executive', 'NIGHT', 'NET', 403],
]);

it('shows people what is theirs, and nothing else', function (string $account, array $units, array $codes) {
    $this->as($account);
    expect($this->getJson('/api/session')->json('units.*.code'))->toHaveCount($units['count'])->toContain(...$units['sees']);
    foreach ($units['not'] as $unit) {
        expect($this->getJson('/api/session')->json('units.*.code'))->not->toContain($unit);
        foreach (['ribbon?period=2026-08', 'scorecard?period=2026-08&span=month', 'logbook?period=2026-08', 'grid?period=2026-08&layer=actual&columns=month', 'closing?period=2026-08', 'figures?period=2026-08&format=csv'] as $page) {
            // What is not theirs to see answers as what is not there.
            $this->getJson("/api/units/{$unit}/{$page}")->assertNotFound()->assertJsonPath('title', 'There is no such thing here');
        }
    }
    $this->getJson("/api/kpis/{$codes[0]}?period=2026-08")->assertOk();
    $this->getJson("/api/kpis/{$codes[1]}?period=2026-08")->assertStatus($codes[2]);
    $this->getJson('/api/measurements/'.self::measured($codes[1], 'WST')->id.'?period=2026-08&span=month')->assertStatus($codes[2]);
    $top = $this->getJson('/api/session')->json('units.0.code');
    $rows = $this->getJson("/api/units/{$top}/scorecard?period=2026-08&span=month")->assertOk()->json('groups.*.rows.*.code');
    expect(in_array($codes[1], $rows, true))->toBe($codes[2] === 200);
})->with([
    'an owner' => ['owner', ['count' => 14, 'sees' => ['OST', 'NET', 'Z-FENWICK'], 'not' => ['WST', 'TRT']], ['LEAK', 'FLOODING', 404]],
    'a head' => ['head', ['count' => 13, 'sees' => ['NET', 'Z-FENWICK'], 'not' => ['OST', 'WST']], ['LEAK', 'FLOODING', 404]],
    'an executive' => ['executive', ['count' => 129, 'sees' => ['OST', 'WST', 'M-OSIER-40'], 'not' => []], ['LEAK', 'FLOODING', 200]],
]);

it('leaves writing to those whose work it is', function (string $method, string $uri, array $allowed) {
    foreach (['analyst', 'owner', 'head', 'executive'] as $account) {
        $status = $this->as($account)->json($method, $uri)->getStatusCode();
        expect($status === 403)->toBe(! in_array($account, $allowed, true), "{$account} {$method} {$uri} {$status}");
    }
})->with([
    ['PUT', '/api/units/NET/cells?period=2026-08&layer=actual&columns=month', ['analyst', 'owner', 'head']],
    ['POST', '/api/units/NET/cells?period=2026-08', ['analyst', 'owner', 'head']],
    ['POST', '/api/units/NET/submission?period=2020-01', ['analyst', 'owner', 'head']],
    ['POST', '/api/units/NET/imports', ['analyst', 'owner', 'head']],
    ['PUT', '/api/units/NET/closing?period=2020-13', ['analyst']],
    ['POST', '/api/units/NET/reopening?period=2020-01', ['analyst']],
    ['PATCH', '/api/kpis', ['analyst']],
    ['PUT', '/api/lists', ['analyst']],
    ['POST', '/api/targets/plan', ['analyst']],
    ['POST', '/api/replay', ['analyst']],
    ['POST', '/api/formula', ['analyst']],
    ['POST', '/api/definitions', ['analyst']],
    ['GET', '/api/definitions?format=csv', ['analyst']],
]);

it('lets only analysts define', function (string $account, int $status) {
    $this->as($account)->postJson('/api/kpis?period=2026-08', [])->assertStatus($status);
    $this->as($account)->putJson('/api/kpis/LEAK?period=2026-08', [])->assertStatus($status);
})->with([['owner', 403], ['head', 403], ['executive', 403], ['analyst', 422]]);

it('signs in, refuses politely, and signs out', function () {
    $wrong = ['email' => 'analyst@ostermere.example', 'password' => 'guess'];
    $this->postJson('/api/session', $wrong)->assertStatus(422)->assertJsonPath('errors.0.pointer', '/password');
    $this->postJson('/api/session', [])->assertStatus(422)->assertJsonCount(2, 'errors');

    $this->postJson('/api/session', [...$wrong, 'password' => 'ostermere'])->assertOk()
        ->assertJsonPath('user.name', 'Ines Marrow')->assertJsonPath('user.defines', true)->assertJsonPath('period', '2026-08');
    $this->deleteJson('/api/session')->assertNoContent();
    $this->assertGuest();
});

it('slows down those who guess passwords, and nobody else', function () {
    $this->withQuickPasswords('ostermere');
    foreach (range(1, 11) as $ignored) {
        $this->postJson('/api/session', ['email' => 'analyst@ostermere.example', 'password' => 'ostermere'])->assertOk();
        $this->deleteJson('/api/session')->assertNoContent();
    }
    $guess = fn () => $this->postJson('/api/session', ['email' => 'analyst@ostermere.example', 'password' => 'guess']);
    foreach (range(1, 10) as $ignored) {
        $guess()->assertStatus(422);
    }
    $guess()->assertStatus(429)->assertHeader('Retry-After')->assertJsonPath('title', 'Too many attempts');
});

it('keeps everything inline out of the page', function () {
    $page = $this->get('/scorecard?unit=NET')->assertOk();

    expect($page->headers->get('Content-Security-Policy'))->toContain("script-src 'self'")->not->toContain('unsafe')
        ->and($page->getContent())->not->toMatch('/<script(?![^>]*src=)|<style|\son\w+=|\sstyle=/');
});

it('refuses requests that were forged elsewhere', function () {
    // The framework leaves its check out in tests; here it is asked to do its work.
    $this->app['env'] = 'production';
    $this->as('analyst')->patchJson('/api/session', ['locale' => 'de-DE'])->assertStatus(419);

    expect(User::query()->where('email', 'analyst@ostermere.example')->value('locale'))->toBe('en-GB');
});
