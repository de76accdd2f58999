<?php

declare(strict_types=1);

use App\Models\User;
use App\Organisation\Organisation;
use App\Organisation\PlannedUnit;
use App\Organisation\UnitList;
use App\People\PasswordRules;
use App\Support\Installation;
use Illuminate\Support\Facades\DB;
use Tests\World;

/** Nothing of anybody: what `bin/start --empty` leaves. */
function emptied(): string
{
    DB::statement('TRUNCATE units, users, kpis, installation, audit_entries CASCADE');
    DB::table('installation')->insert(['year_start_month' => 4]);
    app()->forgetScopedInstances();

    return app(Installation::class)->open() ?? throw new LogicException('An empty installation can be opened.');
}

/** @return array<string, mixed> */
function beginning(string $link, array $change = []): array
{
    return [...[
        'link' => $link, 'organisation' => ' Harbour  Clinics ', 'yearStartMonth' => 1, 'timeZone' => 'Europe/Amsterdam', 'currency' => 'EUR', 'locale' => 'nl-NL',
        'name' => 'Mara Quist', 'email' => 'Mara@Harbour.example', 'password' => 'seven slow herons at dusk',
    ], ...$change];
}

describe('an organisation of one\'s own', function () {
    it('is begun with the link, once, by whoever administers and analyses it from then on', function () {
        $link = emptied();
        $this->getJson("/api/beginning?link={$link}")->assertOk()->assertJsonPath('works', true);
        $before = session()->getId();
        $this->postJson('/api/beginning', beginning($link))->assertNoContent();

        // Whatever session the browser had before is another one now.
        expect(session()->getId())->not->toBe($before);
        app()->forgetScopedInstances();
        $this->getJson('/api/session')->assertJsonPath('user.name', 'Mara Quist')->assertJsonPath('user.administers', true)->assertJsonPath('user.defines', true)
            ->assertJsonPath('user.locale', 'nl-NL')->assertJsonPath('units.0.code', 'HC')->assertJsonPath('units.0.name', 'Harbour Clinics')
            ->assertJsonPath('yearStartMonth', 1)->assertJsonPath('firstSteps', true)->assertJsonPath('empty', false);
        expect(User::query()->sole()->email)->toBe('mara@harbour.example')->and(DB::table('audit_entries')->where('subject', 'units')->count())->toBe(1);

        $this->getJson("/api/beginning?link={$link}")->assertJsonPath('works', false)->assertJsonPath('timeZones', []);
        $this->postJson('/api/beginning', beginning($link, ['email' => 'other@harbour.example']))->assertStatus(422)->assertJsonPath('errors.0.pointer', '/link');
        expect(User::query()->count())->toBe(1)->and(app(Installation::class)->open())->toBeNull();
        $this->artisan('demo:load')->assertSuccessful();
        expect(DB::table('kpis')->count())->toBe(0);
    });

    it('is begun with nothing else', function (Closure $wrong) {
        $link = $wrong(emptied());
        $this->getJson("/api/beginning?link={$link}")->assertOk()->assertJsonPath('works', false);
        $this->postJson('/api/beginning', beginning($link))->assertStatus(422)->assertJsonPath('errors.0.pointer', '/link');
        expect(DB::table('units')->count() + DB::table('users')->count())->toBe(0);
        $this->getJson('/api/session')->assertJsonPath('empty', true)->assertJsonPath('demo', []);
    })->with([
        'a guess' => [fn (string $link): string => strrev($link)],
        'its hash' => [fn (string $link): string => hash('sha256', $link)],
        'a link after seven days' => [function (string $link): string {
            DB::table('installation')->update(['link_until' => now()->subSecond()]);

            return $link;
        }],
        'a link for which a newer one was printed' => [function (string $link): string {
            app(Installation::class)->open();

            return $link;
        }],
    ]);

    it('is no demonstration and no organisation that is there', function () {
        expect(app(Installation::class)->open())->toBeNull();
        $this->postJson('/api/beginning', beginning('x'))->assertStatus(422)->assertJsonPath('errors.0.pointer', '/link');
    });

    it('says beside each field what is wrong, and keeps the link', function (array $change, string $pointer) {
        $link = emptied();
        $answer = $this->postJson('/api/beginning', beginning($link, $change))->assertStatus(422);
        expect(array_column($answer->json('errors'), 'pointer'))->toBe([$pointer]);
        $this->postJson('/api/beginning', beginning($link))->assertNoContent();
    })->with([
        'no name' => [['organisation' => ' '], '/organisation'],
        'a month that is none' => [['yearStartMonth' => 13], '/yearStartMonth'],
        'a zone that is none' => [['timeZone' => 'Middle/Earth'], '/timeZone'],
        'a currency that is none' => [['currency' => 'XQX'], '/currency'],
        'an address that is none' => [['email' => 'mara'], '/email'],
        'a short password' => [['password' => 'eleven sign'], '/password'],
    ]);

    it('counts months by its own clock', function () {
        emptied();
        DB::table('installation')->update(['time_zone' => 'Pacific/Auckland']);
        app()->forgetScopedInstances();
        Carbon\CarbonImmutable::setTestNow('2026-08-31 13:00:00');
        expect(App\Support\Month::running()->key())->toBe('2026-09');
    });
});

// NIST SP 800-63B, section 5.1.1.2: length and a list of common ones; no rules of composition.
it('takes long passwords that nobody would try first', function (string $password, bool $isTaken) {
    expect(PasswordRules::problem($password, ['Mara Quist', 'mara.quist@harbour.example', 'Harbour Clinics']) === '')->toBe($isTaken);
})->with([
    'a few words' => ['seven slow herons', true], 'no capital, digit or sign' => ['correcthorsebatterystaple', true], 'in another script' => ['семь медленных цапель', true],
    'eleven signs' => ['heronsatdus', false], 'more than the hash reads' => [str_repeat('heron at dusk ', 6), false],
    'a common one, made longer' => ['password1234', false], 'with signs around it' => ['!!password!!!', false], 'twice' => ['trustno1trustno1', false],
    'one sign' => ['aaaaaaaaaaaaaa', false], 'a run' => ['123456789012', false], 'along the keyboard' => ['qwertyuiopasdf', false],
    'the own name' => ['mara.quist.2026', false], 'the organisation' => ['HarbourClinics!', false], 'the name among other words' => ['Mara feeds nine herons', true],
]);

describe('units from a list', function () {
    /** @return list<string> */
    $read = fn (string $list, string $below = 'team'): array => array_map(
        fn (PlannedUnit $unit): string => str_repeat('  ', $unit->depth)."{$unit->code} {$unit->kind}".($unit->isThere ? ' there' : '').($unit->problem === '' ? '' : " {$unit->problem}"),
        (new UnitList(new Organisation))->read($list, $below),
    );

    it('stand below what stands above them', function (string $list, array $expected) use ($read) {
        $this->world();
        expect($read($list))->toBe($expected);
    })->with([
        'typed with blanks' => ["Sales\n  Export\n    Asia\n  Home\nStock", ['  SALES department', '    EXPORT team', '      ASIA team', '    HOME team', '  STOCK department']],
        'with tabs and bullets' => ["- Sales\n\t- Export\n\t\t• Asia\n* Stock", ['  SALES department', '    EXPORT team', '      ASIA team', '  STOCK department']],
        'all of it further in' => ["    Sales\n      Export\n    Stock", ['  SALES department', '    EXPORT team', '  STOCK department']],
        'below the organisation itself' => ["Whole\n  Sales", ['ORG organisation there', '  SALES department']],
        'with codes' => ["Sales (SAL)\n  Export\tX1", ['  SAL department', '    X1 team']],
        'twice the same name' => ["Quay\n  Ward\nGate\n  Ward", ['  QUAY department', '    WARD team', '  GATE department', '    GATE-WAR team']],
        'there already' => ["North\n  north one\n  Night", ['  NORTH department there', '    N1 zone there', '    NIGHT team']],
        'in other letters' => ["Straße Süd\n  Équipe 7\n  7 Up", ['  STRASSE department', '    EQUIPE team', '    U7 team']],
        'a code that is taken' => ['Sales (north)', ['  north department The code north is taken by North.']],
        'a code that is none' => ['Sales (a b)', ['  a b department A code starts with a letter and has only letters, digits, hyphens, points and underscores.']],
        'blank lines' => ["\n  \nSales\n\n", ['  SALES department']],
    ]);

    it('are made as a whole or not at all, told in the trail, and taken back while nothing hangs on them', function () {
        $this->world();
        $make = fn (string $list) => $this->being('analyst')->postJson('/api/unit-lists', ['list' => $list, 'below' => 'Team ']);
        $make("Sales\n  Export (north)")->assertStatus(422)->assertJsonPath('errors.0.pointer', '/list')->assertJsonPath('errors.0.detail', 'Line 2: The code north is taken by North.');
        $make("North\n")->assertStatus(422)->assertJsonPath('errors.0.detail', 'There is no new unit in the list.');
        $batch = $make("  Sales\n    Export\n  Stock")->assertCreated()->json('batch');
        expect(DB::table('units')->where('code', 'EXPORT')->value('kind'))->toBe('team');
        $this->getJson('/api/changes?period=2026-07&subject=unit')->assertOk()->assertJsonPath('changes.0.what', 'unit')->assertJsonPath('changes.0.how', 'made');

        // The first line may stand in as well, and a list is read the same when it is sent twice.
        $make("  Sales\n    Export")->assertStatus(422)->assertJsonPath('errors.0.detail', 'There is no new unit in the list.');
        DB::table('grants')->where('user_id', World::person('owner')->id)->update(['unit_id' => DB::table('units')->where('code', 'STOCK')->value('id')]);
        $this->deleteJson("/api/unit-lists/{$batch}")->assertStatus(422)->assertJsonPath('errors.0.detail', 'Stock has people by now, so these units stay.');
        DB::table('grants')->where('user_id', World::person('owner')->id)->update(['unit_id' => DB::table('units')->where('code', 'NORTH')->value('id')]);
        $this->deleteJson("/api/unit-lists/{$batch}")->assertNoContent();
        expect(DB::table('units')->whereIn('code', ['SALES', 'EXPORT', 'STOCK'])->count())->toBe(0);
    });

    it('are made by the thousand without a query for each way through them', function () {
        $this->world();
        $list = implode("\n", array_map(fn (int $unit): string => $unit % 10 === 0 ? "Site {$unit}" : "  Team {$unit}", range(0, 1999)));
        DB::enableQueryLog();
        expect(count((new UnitList(new Organisation))->read($list, 'team')))->toBe(2000)->and(DB::getQueryLog())->toHaveCount(2);
    });
});

it('tells how far the first steps have come by what is there, until they are put away', function () {
    $link = emptied();
    $this->postJson('/api/beginning', beginning($link))->assertNoContent();
    $this->getJson('/api/first-month')->assertOk()->assertExactJson(['currency' => 'EUR', 'timeZone' => 'Europe/Amsterdam', 'units' => 0, 'people' => 1, 'kpis' => 0, 'history' => 0, 'closed' => null]);
    $this->postJson('/api/unit-lists', ['list' => "Quayside\n  Outpatients", 'below' => 'site'])->assertCreated();
    $this->getJson('/api/first-month')->assertJsonPath('units', 2);
    $this->deleteJson('/api/first-month')->assertNoContent();
    app()->forgetScopedInstances();
    $this->getJson('/api/session')->assertJsonPath('firstSteps', false);
});
