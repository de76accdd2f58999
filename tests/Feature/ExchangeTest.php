<?php

declare(strict_types=1);

use App\Exchange\ImportWorkbook;
use App\Figures\DatabaseWorkbook;
use App\Figures\MeasurementStore;
use App\Models\User;
use App\Support\Formats;
use Carbon\CarbonImmutable;
use Illuminate\Support\Facades\DB;
use Kybernet\Core\Calendar\Period;
use Kybernet\Core\Calendar\Span;
use Kybernet\Core\Scorecard;
use Kybernet\Core\Workbook\Assessor;
use Kybernet\Core\Workbook\BadWorkbook;
use Kybernet\Core\Workbook\Workbook;
use Kybernet\Core\Workbook\WorkbookWriter;

function written(Workbook $workbook): string
{
    return implode('', iterator_to_array((function () use ($workbook) {
        yield from WorkbookWriter::json($workbook);
    })(), false));
}

function fromDatabase(): Workbook
{
    app()->forgetScopedInstances();

    return app(DatabaseWorkbook::class)->read();
}

function everything(): string
{
    return (string) file_get_contents(base_path('core/tests/Fixtures/everything.json'));
}

it('moves every kind of definition and figure into the database and out again', function () {
    app(ImportWorkbook::class)(Formats::reader()->read(everything()));
    $workbook = fromDatabase();
    $people = array_column($workbook->people, null, 'email');

    // Accounts that the workbook does not name stay, and nobody can sign in with them.
    expect($people)->toHaveKeys(['ana@example.org', 'olaf@example.org', 'analyst@ostermere.example'])
        ->and($people['olaf@example.org']->locale)->toBe('de-DE')->and($people['analyst@ostermere.example']->isBlocked)->toBeTrue();
    $this->postJson('/api/session', ['email' => 'analyst@ostermere.example', 'password' => 'ostermere'])->assertStatus(422);
    expect($this->getJson('/api/session')->json('demo'))->toBe([]);
    $same = new Workbook($workbook->year, [$people['ana@example.org'], $people['olaf@example.org']], $workbook->units, $workbook->objectives, $workbook->themes, $workbook->kpis);
    expect(written($same))->toBe(written(Formats::reader()->read(everything())))->and(written($same))->toBe(everything());
});

it('serves the schemas of its formats to anybody', function (string $format) {
    $served = $this->get("/formats/{$format}.schema.json")->assertOk()->assertHeader('Content-Type', 'application/schema+json');

    expect($served->json('$id'))->toBe("urn:kybernet:{$format}:1");
})->with(Formats::SCHEMAS);

it('moves the demonstration out and in without loss', function () {
    $before = written(fromDatabase());
    app(ImportWorkbook::class)(Formats::reader()->read($before));

    expect(written(fromDatabase()))->toBe($before)->and(strlen($before))->toBeGreaterThan(500_000);
});

it('keeps everything that the database holds when its own workbook is put in its place', function () {
    CarbonImmutable::setTestNow('2026-09-10');
    $leak = $this->measuredId('LEAK');
    $this->as('head')->postJson("/api/measurements/{$leak}/actions/2026-08", ['what' => 'Dig', 'who' => 'Crew', 'due' => '2026-10-01', 'state' => 'open', 'outcome' => '', 'version' => 0])->assertCreated();
    $this->putJson("/api/measurements/{$leak}/seen?period=2026-08&span=month", ['reasons' => ['red']])->assertNoContent();
    // One that was taken back, and somebody who has left.
    $this->as('owner')->putJson("/api/measurements/{$leak}/readings/2026-08", ['typed' => '', 'version' => 1])->assertOk();
    User::query()->where('email', 'executive@ostermere.example')->update(['blocked_at' => now()]);
    DB::table('installation')->update(['is_demonstration' => false]);
    $state = fn (): array => array_map(
        // As texts: comparing tens of thousands of objects member by member takes minutes.
        fn (string $order): array => array_column(DB::select("SELECT (to_jsonb(row) - 'blocked_at')::text AS row FROM ".strtok($order, ' ').' row ORDER BY '.substr($order, strlen((string) strtok($order, ' ')) + 1)), 'row'),
        ['units id', 'users id', 'themes id', 'objectives id', 'kpis id', 'kpi_unit id', 'kpi_drivers kpi_id, driver_id', 'rule_sets id', 'targets kpi_unit_id, period', 'year_targets kpi_unit_id, year',
            'readings id', 'notes id', 'calls id', 'actions id', 'period_states unit_id, period', 'seen_marks user_id, kpi_unit_id, period', 'installation one'],
    );
    app()->forgetScopedInstances();
    $trail = DB::table('audit_entries')->count();
    $before = $state();
    app(ImportWorkbook::class)(Formats::reader()->read(written(fromDatabase())));
    CarbonImmutable::setTestNow();

    expect($state())->toBe($before)->and(DB::table('audit_entries')->count())->toBe($trail + 1)
        ->and(User::query()->whereNotNull('blocked_at')->pluck('email')->all())->toBe(['executive@ostermere.example']);
    // The trail still knows what it is about.
    $this->as('analyst')->getJson('/api/changes?subject=action')->assertJsonPath('changes.0.code', 'LEAK');
});

it('lets nobody sign in to an account that came with a workbook until it has a password', function () {
    app(ImportWorkbook::class)(Formats::reader()->read(everything()));
    $this->postJson('/api/session', ['email' => 'ana@example.org', 'password' => ''])->assertStatus(422);
    $this->artisan('password', ['email' => 'ana@example.org'])->expectsQuestion('New password', 'short')->assertExitCode(1);
    $this->artisan('password', ['email' => 'ana@example.org'])->expectsQuestion('New password', 'a long enough one')->assertExitCode(0);

    $this->postJson('/api/session', ['email' => 'ana@example.org', 'password' => 'a long enough one'])->assertOk()->assertJsonPath('user.defines', true);
});

it('changes nothing when the workbook does not fit here', function (string $search, string $replace, string $pointer) {
    $before = written(fromDatabase());
    $workbook = Formats::reader()->read(str_replace($search, $replace, everything()));
    try {
        app(ImportWorkbook::class)($workbook);
        $this->fail('It was imported.');
    } catch (BadWorkbook $bad) {
        expect(array_column($bad->problems, 'pointer'))->toContain($pointer);
    }

    expect(written(fromDatabase()))->toBe($before);
})->with([
    'two roots' => ['"parent":"ORG","weight":2.5', '"weight":2.5', '/units'],
    'an owner whom nobody knows' => ['"owner":"olaf@example.org"', '"owner":"who@example.org"', '/kpis/0/units/1/owner'],
    'an author whom nobody knows' => ['"note":"A burst main.","by":"olaf@example.org"', '"note":"A burst main.","by":"who@example.org"', '/readings'],
]);

it('carries the time zone of the organisation', function () {
    app(ImportWorkbook::class)(Formats::reader()->read(str_replace('"yearStartMonth":4', '"yearStartMonth":4,"timeZone":"Europe/London"', everything())));
    expect(DB::table('installation')->value('time_zone'))->toBe('Europe/London')->and(written(fromDatabase()))->toContain('"timeZone":"Europe/London"');
});

it('rolls back as a whole when the database refuses in the middle', function () {
    $before = written(fromDatabase());
    DB::statement("ALTER TABLE notes ADD CONSTRAINT refuse CHECK (text <> 'Worked out.') NOT VALID");

    expect(fn () => app(ImportWorkbook::class)(Formats::reader()->read(everything())))->toThrow(Illuminate\Database\QueryException::class);
    expect(written(fromDatabase()))->toBe($before);
});

it('judges from the database what it judges from the exported workbook', function (string $month) {
    $assessed = [];
    foreach ((new Assessor(Formats::reader()->read(written(fromDatabase())), Period::parse($month), Span::Month))->assessments() as $each) {
        foreach ($each->spans as $span => $assessment) {
            $assessed["{$each->kpi} {$each->unit} {$span}"] = [$assessment->status, (string) $assessment->figures->actual, (string) $assessment->prior->figure, $assessment->reason()];
        }
    }
    $scorecard = app(Scorecard::class);
    $units = DB::table('units')->pluck('code', 'id');
    foreach (app(MeasurementStore::class)->inUnits(array_values($units->keys()->all()), Period::parse($month)->plus(-36), Period::parse($month)) as $kpi) {
        // What is counted by a field that is sensitive stands in the workbook as readings, whose longer spans are put together.
        foreach ($kpi->code === 'CASE-PEOPLE' ? [Span::Month] : Span::cases() as $span) {
            $assessment = $scorecard->assess($kpi->measurement, Period::parse($month), $span);
            expect([$assessment->status, (string) $assessment->figures->actual, (string) $assessment->prior->figure, $assessment->reason()])
                ->toBe($assessed["{$kpi->code} {$units[$kpi->unitId]} {$span->value}"]);
        }
    }
    expect(count($assessed))->toBe(DB::table('kpi_unit')->count() * 4);
})->with(['2026-08', '2026-03']);

it('shows every kind of KPI on the screens, and takes typed figures only where they belong', function () {
    app(ImportWorkbook::class)(Formats::reader()->read(everything()));
    app()->forgetScopedInstances();
    $this->actingAs(User::query()->where('email', 'ana@example.org')->firstOrFail());
    foreach (['month', 'quarter', 'yearToDate', 'rolling12'] as $span) {
        $this->getJson("/api/units/ORG/scorecard?period=2026-08&span={$span}")->assertOk();
    }
    $rows = collect($this->getJson('/api/units/ORG/scorecard?period=2026-08&span=month')->json('groups'))->flatMap(fn (array $group): array => $group['rows'])->keyBy('code');
    expect($rows['MOOD'])->status->toBe('amber')->actual->toBeNull()->instead->toBe('a person judged')
        ->and($rows['PRES'])->status->toBe('amber')->zones->not->toBeNull()
        ->and($rows['SHARE']['actual']['exact'])->toBe('99.9997000034');

    expect(collect($this->getJson('/api/units/ORG/logbook?period=2026-08')->json('rows'))->pluck('code')->unique()->values()->all())->toBe(['LATE', 'LEAK', 'PRES', 'SHARE', 'BURST', 'PER-PROP', 'PROPS']);
    // In September a quarter ends as well, and nobody has entered anything.
    $ribbon = collect($this->getJson('/api/units/ORG/ribbon?period=2026-08')->assertOk()->json('months'))->keyBy('period');
    expect([$ribbon['2026-08']['expected'], $ribbon['2026-08']['reported'], $ribbon['2026-09']['expected'], $ribbon['2026-09']['reported']])->toBe([10, 7, 12, 0])
        ->and($this->getJson('/api/units/ORG/scorecard?period=2026-08&span=month')->json('missing'))->toBe(3);
    $save = fn (string $kpi, string $unit, string $month, string $typed) => $this->putJson('/api/measurements/'.self::measured($kpi, $unit)->id."/readings/{$month}", ['typed' => $typed, 'version' => 0]);
    $save('SHARE', 'NET', '2026-08', '1')->assertStatus(422)->assertJsonPath('errors.0.pointer', '/typed');
    $save('LEAK', 'NET', '2026-08', '1')->assertStatus(422);
    $save('LEAK', 'Z1', '2024-03', '1')->assertStatus(422);
    $save('LEAK', 'Z1', '2026-05', '-1')->assertStatus(422)->assertJsonPath('errors.0.detail', 'The figure cannot be below 0.');
    $save('LEAK', 'Z1', '2026-05', '7')->assertOk();
});
