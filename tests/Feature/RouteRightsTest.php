<?php

declare(strict_types=1);

use App\Briefings\Content\Content;
use App\Briefings\SaveBriefing;
use App\Models\Import;
use App\Models\Unit;
use App\Sources\SaveSet;
use App\Sources\WantedSet;
use Illuminate\Http\UploadedFile;
use Illuminate\Routing\Route;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Facades\Route as Routes;
use Kybernet\Core\Calendar\Span;
use Tests\World;

/*
 * Every route, every role, one's own subject and somebody else's. What a person may not see answers as what is not there
 * (404); what they see and may not do is refused (403).
 */

/** One letter a role: m is who administers and nothing else, u is an auditor. */
const LETTERS = ['analyst' => 'a', 'executive' => 'e', 'head' => 'h', 'owner' => 'o', 'reader' => 'r', 'auditor' => 'u', 'administrator' => 'm'];

/** Who may, who is refused and from whom it is hidden, own and foreign. */
const RIGHTS = [
    'everybody' => ['may' => 'aehorum'],
    'the analyst' => ['may' => 'a', 'refused' => 'ehorum'],
    'who administers' => ['may' => 'am', 'refused' => 'ehoru'],
    'they themselves, and who administers' => ['may' => 'aem', 'refused' => 'horu'],
    'who sees the subject, and who administers' => ['may' => 'aehorum', 'foreign' => ['may' => 'aerum', 'hidden' => 'ho']],
    'who sees the subject' => ['may' => 'aehoru', 'hidden' => 'm', 'foreign' => ['may' => 'aeru', 'hidden' => 'hom']],
    'who enters its figures' => ['may' => 'aho', 'refused' => 'eru', 'hidden' => 'm', 'foreign' => ['may' => 'a', 'refused' => 'eru', 'hidden' => 'hom']],
    'who answers for it' => ['may' => 'ah', 'refused' => 'eoru', 'hidden' => 'm', 'foreign' => ['may' => 'a', 'refused' => 'eru', 'hidden' => 'hom']],
    'the analyst, of what the others see' => ['may' => 'a', 'refused' => 'ehoru', 'hidden' => 'm', 'foreign' => ['may' => 'a', 'refused' => 'eru', 'hidden' => 'hom']],
    'who brings records in' => ['may' => 'ao', 'refused' => 'ehrum'],
    'the set\'s, and the analyst' => ['may' => 'ao', 'hidden' => 'ehrum', 'foreign' => ['may' => 'a', 'hidden' => 'ehorum']],
    'the analyst, of a set' => ['may' => 'a', 'refused' => 'o', 'hidden' => 'ehrum', 'foreign' => ['may' => 'a', 'hidden' => 'ehorum']],
    'who sent it, and the analyst' => ['may' => 'ao', 'hidden' => 'ehrum', 'foreign' => ['may' => 'a', 'hidden' => 'ehorum']],
];

const ROUTES = [
    'GET units/{unit}/ribbon' => 'who sees the subject',
    'GET units/{unit}/weeks' => 'who sees the subject',
    'GET units/{unit}/scorecard' => 'who sees the subject',
    'GET units/{unit}/scorecard/file' => 'who sees the subject',
    'GET units/{unit}/matrix' => 'who sees the subject',
    'GET units/{unit}/matrix/file' => 'who sees the subject',
    'GET units/{unit}/comparison' => 'who sees the subject',
    'GET units/{unit}/comparison/ranks' => 'who sees the subject',
    'GET units/{unit}/comparison/file' => 'who sees the subject',
    'GET briefings' => 'everybody',
    'GET briefing-kinds' => 'the analyst',
    'POST briefings' => 'the analyst',
    'GET briefing-pack' => 'everybody',
    'GET briefings/{briefing}' => 'who sees the subject',
    'GET briefings/{briefing}/pdf' => 'who sees the subject',
    'GET briefings/{briefing}/links' => 'the analyst, of what the others see',
    'POST briefings/{briefing}/links' => 'the analyst, of what the others see',
    'DELETE briefings/{briefing}/links/{link}' => 'the analyst, of what the others see',
    'POST briefings/{briefing}/pictures' => 'the analyst, of what the others see',
    'PUT briefings/{briefing}/draft' => 'the analyst, of what the others see',
    'POST briefings/{briefing}/preview' => 'the analyst, of what the others see',
    'GET briefings/{briefing}/commentary' => 'the analyst, of what the others see',
    'POST briefings/{briefing}/issues' => 'the analyst, of what the others see',
    'GET briefings/{briefing}/arrangement' => 'the analyst, of what the others see',
    'PUT briefings/{briefing}/arrangement' => 'the analyst, of what the others see',
    'DELETE briefings/{briefing}/retirement' => 'the analyst, of what the others see',
    'GET units/{unit}/exceptions' => 'who sees the subject',
    'GET units/{unit}/exceptions/file' => 'who sees the subject',
    'GET units/{unit}/kpis/{kpi}' => 'who sees the subject',
    'GET units/{unit}/logbook' => 'who sees the subject',
    'GET units/{unit}/grid' => 'who sees the subject',
    'GET units/{unit}/closing' => 'who sees the subject',
    'GET units/{unit}/figures' => 'who sees the subject',
    'PUT units/{unit}/cells' => 'who enters its figures',
    'POST units/{unit}/cells' => 'who enters its figures',
    'POST units/{unit}/submission' => 'who enters its figures',
    'POST units/{unit}/imports' => 'who enters its figures',
    'PUT units/{unit}/closing' => 'the analyst, of what the others see',
    'POST units/{unit}/reopening' => 'the analyst, of what the others see',
    'GET measurements/{measurement}' => 'who sees the subject',
    'PUT measurements/{measurement}/seen' => 'who sees the subject',
    'PUT measurements/{measurement}/call' => 'who answers for it',
    'PUT measurements/{measurement}/readings/{period}' => 'who enters its figures',
    'POST measurements/{measurement}/readings/{period}/preview' => 'who enters its figures',
    'PUT measurements/{measurement}/notes/{period}' => 'who enters its figures',
    'POST measurements/{measurement}/actions/{period}' => 'who enters its figures',
    'PUT actions/{action}' => 'who enters its figures',
    'GET imports/{import}' => 'who sent it, and the analyst',
    'PUT imports/{import}/head' => 'who sent it, and the analyst',
    'PUT imports/{import}/mapping' => 'who sent it, and the analyst',
    'POST imports/{import}/application' => 'who sent it, and the analyst',
    'DELETE imports/{import}/application' => 'who sent it, and the analyst',
    'GET units/{unit}/kpis/{kpi}/what-if' => 'who sees the subject',
    'GET people' => 'who administers',
    'POST people' => 'who administers',
    'PUT people/{person}' => 'who administers',
    'POST people/{person}/link' => 'who administers',
    'PUT people/{person}/block' => 'who administers',
    'DELETE people/{person}/second-factor' => 'who administers',
    'GET book' => 'the analyst',
    'POST book' => 'the analyst',
    'POST book/{upload}' => 'the analyst',
    'GET settings' => 'who administers',
    'PUT settings' => 'who administers',
    'GET settings/new-kpi' => 'the analyst',
    'GET settings/everything' => 'the analyst',
    'PUT settings/mail' => 'who administers',
    'POST settings/mail/trial' => 'who administers',
    'GET logo' => 'everybody',
    'POST logo' => 'who administers',
    'DELETE logo' => 'who administers',
    'DELETE demonstration' => 'who administers',
    'GET tokens' => 'who administers',
    'POST tokens' => 'who administers',
    'DELETE tokens/{token}' => 'who administers',
    'GET people/file' => 'who administers',
    'POST people-lists/preview' => 'who administers',
    'POST people-lists' => 'who administers',
    'GET people/{person}/duties' => 'who administers',
    'POST people/{person}/leaving' => 'who administers',
    'GET stand-ins' => 'who administers',
    'POST people/{person}/stand-ins' => 'they themselves, and who administers',
    'DELETE people/{person}/stand-ins/{standIn}' => 'they themselves, and who administers',
    'GET account' => 'everybody',
    'PATCH account' => 'everybody',
    'POST account/second-factor' => 'everybody',
    'PUT account/second-factor' => 'everybody',
    'DELETE account/second-factor' => 'everybody',
    'DELETE account/sessions' => 'everybody',
    'DELETE account/sessions/{session}' => 'everybody',
    'PUT session/password' => 'everybody',
    'GET first-month' => 'who administers',
    'DELETE first-month' => 'who administers',
    'GET units' => 'who administers',
    'GET units/{unit}' => 'who sees the subject, and who administers',
    'DELETE units/{unit}/shape' => 'who administers',
    'POST unit-shapes/preview' => 'who administers',
    'POST unit-shapes' => 'who administers',
    'PUT units/{unit}' => 'who administers',
    'PUT units/{unit}/order' => 'who administers',
    'PUT units/{unit}/retirement' => 'who administers',
    'DELETE units/{unit}/retirement' => 'who administers',
    'DELETE units/{unit}' => 'who administers',
    'POST unit-lists/preview' => 'who administers',
    'POST unit-lists' => 'who administers',
    'DELETE unit-lists/{batch}' => 'who administers',
    'GET record-sets' => 'who brings records in',
    'POST record-samples' => 'the analyst',
    'POST record-sets' => 'the analyst',
    'POST record-values' => 'the analyst',
    'POST record-preview' => 'the analyst',
    'GET record-sets/{recordSet}' => 'the set\'s, and the analyst',
    'GET record-sets/{recordSet}/file' => 'the set\'s, and the analyst',
    'PUT record-sets/{recordSet}' => 'the analyst, of a set',
    'PUT record-sets/{recordSet}/unit-names' => 'the analyst, of a set',
    'PUT record-sets/{recordSet}/retirement' => 'the analyst, of a set',
    'DELETE record-sets/{recordSet}/retirement' => 'the analyst, of a set',
    'GET record-sets/{recordSet}/way' => 'the analyst, of a set',
    'PUT record-sets/{recordSet}/way' => 'the analyst, of a set',
    'POST record-sets/{recordSet}/asking' => 'the analyst, of a set',
    'POST record-sets/{recordSet}/loads' => 'the set\'s, and the analyst',
    'GET record-loads/{recordLoad}' => 'the set\'s, and the analyst',
    'POST record-loads/{recordLoad}/application' => 'the set\'s, and the analyst',
    'DELETE record-loads/{recordLoad}/application' => 'the set\'s, and the analyst',
    'GET measurements/{measurement}/records' => 'who sees the subject',
    'GET measurements/{measurement}/records/file' => 'who sees the subject',
    'GET measurements/{measurement}/cases' => 'who sees the subject',
    'GET measurements/{measurement}/splits' => 'who sees the subject',
    'GET starters' => 'the analyst',
    'POST starters' => 'the analyst',
    'GET kpis' => 'everybody',
    'GET kpis/{kpi}' => 'who sees the subject',
    'PUT kpis/{kpi}' => 'the analyst, of what the others see',
    'DELETE kpis/{kpi}' => 'the analyst, of what the others see',
    'POST kpis' => 'the analyst',
    'PATCH kpis' => 'the analyst',
    'GET pairings' => 'the analyst',
    'POST replay' => 'the analyst',
    'POST formula' => 'the analyst',
    'PUT lists' => 'the analyst',
    'POST targets/plan' => 'the analyst',
    'GET definitions' => 'the analyst',
    'POST definitions' => 'the analyst',
    'POST definitions/{upload}' => 'the analyst',
    'PUT briefings/{briefing}/retirement' => 'the analyst, of what the others see',
    'GET texts' => 'everybody',
    'GET changes' => 'everybody',
];

const QUERY = '?period=2026-07&span=month&layer=actual&columns=month&crossing=units-kpis&format=csv&words=flow';

it('has a line for every route', function () {
    $routes = collect(Routes::getRoutes()->getRoutes())
        ->filter(fn (Route $route): bool => str_starts_with($route->uri(), 'api/') && in_array('auth', $route->middleware(), true) && $route->uri() !== 'api/session')
        ->map(fn (Route $route): string => $route->methods()[0].' '.substr($route->uri(), 4));

    expect($routes->values()->all())->toEqualCanonicalizing(array_keys(ROUTES));
});

it('lets each role do what is theirs, and nothing else', function (string $route, array $rights) {
    $this->world();
    // What is printed is printed elsewhere.
    config(['kybernet.browser' => '/nowhere']);
    [$method, $uri] = explode(' ', $route);
    foreach (['own' => $rights, 'foreign' => $rights['foreign'] ?? null] as $whose => $expected) {
        if ($expected === null) {
            continue;
        }
        $subject = subject($whose);
        if ($uri === 'book/{upload}') {
            $book = $this->being('analyst')->get('/api/book')->streamedContent();
            $subject['{upload}'] = $this->postJson('/api/book', ['file' => UploadedFile::fake()->createWithContent('b.xlsx', $book)])->assertOk()->json('upload');
        } elseif (str_contains($uri, '{upload}')) {
            $subject['{upload}'] = $this->being('analyst')->postJson('/api/definitions', ['file' => UploadedFile::fake()->createWithContent('d.csv', "code,name\nFLOW,Flow\n")])->assertOk()->json('upload');
        }
        if (preg_match('#/(records|cases)#', $uri) === 1) {
            $set = DB::table('record_sets')->where('code', $subject['{recordSet}'])->value('id');
            DB::table('kpis')->where('code', $subject['{kpi}'])->update(['kind' => 'records', 'record_set_id' => $set, 'counted' => json_encode(['records' => $subject['{recordSet}'], 'take' => 'count', 'datedBy' => 'day'])]);
            app()->forgetScopedInstances();
        }
        foreach (array_keys(World::PEOPLE) as $role) {
            $status = $this->being($role)->json($method, '/api/'.strtr($uri, $subject).QUERY)->getStatusCode();
            $wanted = match (true) {
                str_contains($expected['may'], LETTERS[$role]) => 'may',
                str_contains($expected['hidden'] ?? '', LETTERS[$role]) => 'hidden',
                default => 'refused',
            };
            // What is wrong with an empty request is told only to whoever may make it.
            $told = match ($status) {
                404 => 'hidden',
                403 => 'refused',
                401, 500 => (string) $status,
                default => 'may',
            };
            expect($told)->toBe($wanted, "{$role}, {$whose}: {$method} {$uri} gave {$status}");
        }
    }
})->with(array_map(fn (string $route, string $who): array => [$route, RIGHTS[$who]], array_keys(ROUTES), ROUTES));

/** @return array<string, string> what the parameters of a route stand for */
function subject(string $whose): array
{
    [$kpi, $unit, $sender] = $whose === 'own' ? ['FLOW', 'NORTH', 'owner'] : ['FAR', 'SOUTH', 'analyst'];
    $measurement = World::id($kpi, $unit);
    $action = DB::table('actions')->insertGetId([
        'kpi_unit_id' => $measurement, 'period' => '2026-07-01', 'what' => 'Dig', 'who' => 'Crew', 'due' => '2026-12-01', 'state' => 'open', 'outcome' => '',
        'author_id' => World::person('analyst')->id, 'created_at' => now(), 'updated_at' => now(),
    ]);
    DB::table('logos')->insertOrIgnore(['type' => 'png', 'width' => 1, 'height' => 1, 'bytes' => '', 'digest' => str_repeat('0', 64)]);
    test()->being($sender)->postJson("/api/units/{$unit}/imports", ['file' => UploadedFile::fake()->createWithContent('f.csv', "KPI;Period;Actual\n{$kpi};2026-07;1\n")])->assertCreated();

    // A set of the part of the tree that is meant; one's own is the owner's to bring records into.
    $set = app(SaveSet::class)->make(new WantedSet("SET-{$unit}", 'Set', 'records', DB::table('units')->where('code', $unit)->value('id'), 'id', [
        ['name' => 'id', 'was' => null, 'type' => 'text', 'expression' => null, 'meaning' => '', 'sensitive' => false, 'column' => null, 'form' => ''],
        ['name' => 'day', 'was' => null, 'type' => 'date', 'expression' => null, 'meaning' => '', 'sensitive' => false, 'column' => null, 'form' => ''],
    ], null, [], null, null, false, 'key', $whose === 'own' ? [World::person('owner')->id] : [], 0));
    $load = DB::table('record_loads')->insertGetId(['record_set_id' => $set->id, 'way' => 'file', 'file' => 'f.csv', 'mode' => 'key', 'state' => 'failed', 'created_at' => now(), 'updated_at' => now()]);

    $briefing = app(SaveBriefing::class)->make("Page {$unit}", Unit::query()->where('code', $unit)->firstOrFail(), Span::Month, new Content([]), World::person('analyst'));

    return [
        '{briefing}' => $briefing->code, '{link}' => '1',
        '{recordSet}' => $set->code, '{recordLoad}' => (string) $load,
        '{person}' => (string) World::person('executive')->id, '{batch}' => '6f0f2a1e-58a4-4c8e-9f0c-0a1b2c3d4e5f', '{unit}' => $unit, '{kpi}' => $kpi, '{measurement}' => (string) $measurement, '{period}' => '2026-07', '{action}' => (string) $action,
        '{import}' => (string) Import::query()->max('id'), '{standIn}' => '1', '{token}' => '1', '{session}' => str_repeat('a', 32),
    ];
}
