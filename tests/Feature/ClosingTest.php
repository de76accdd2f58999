<?php

declare(strict_types=1);

use App\Models\User;
use Carbon\CarbonImmutable;
use Illuminate\Http\UploadedFile;
use Illuminate\Support\Facades\DB;

beforeEach(fn () => CarbonImmutable::setTestNow('2026-09-08'));
afterEach(fn () => CarbonImmutable::setTestNow());

it('lists what is missing, unexplained and unusual before a month is closed', function () {
    DB::table('readings')->where('kpi_unit_id', self::measured('VALVES', 'NET')->id)->where('period', '2026-07-01')->update(['actual' => 73, 'version' => 2]);
    $this->as('owner')->putJson('/api/measurements/'.self::measured('VALVES', 'NET')->id.'/readings/2026-08', ['typed' => '7300', 'version' => 0])->assertOk()
        ->assertJsonPath('verdict.question', 'Ten times the figure before, or more. Is that right?');
    $page = $this->getJson('/api/units/NET/closing?period=2026-08')->assertOk()->assertJsonPath('mayClose', false)->json();
    $names = fn (string $list): array => array_column(array_filter($page[$list], fn (array $item): bool => $item['unit'] === 'NET'), 'code');

    expect($names('missing'))->toBe(['BALANCE', 'NIGHT'])->and($names('unexplained'))->toContain('BURSTS')->not->toContain('LEAK')
        ->and($names('unusual'))->toContain('VALVES')->and($page['units'][0])->toMatchArray(['code' => 'NET', 'expected' => 14, 'reported' => 12, 'closed' => false])
        ->and($page['missing'][0]['owner'])->toBe('Tom Fairley');
});

it('hands a month in when what must be explained is explained, and takes a changed figure back to entered', function () {
    $leak = self::measured('LEAK', 'NET')->id;
    DB::table('notes')->where('kpi_unit_id', $leak)->where('period', '2026-08-01')->delete();
    $submit = fn () => $this->as('owner')->postJson('/api/units/NET/submission?period=2026-08')->assertOk();
    expect($submit()->json())->toBe(['submitted' => 0, 'open' => 5, 'unexplained' => ['Leakage']]);

    $this->putJson("/api/measurements/{$leak}/notes/2026-08", ['text' => 'Trunk main.', 'outlook' => 'November', 'doing' => 'Third crew', 'version' => 0])->assertOk()->assertJsonPath('note.doing', 'Third crew');
    expect($submit()->json('submitted'))->toBe(69)->and($submit()->json('submitted'))->toBe(0);
    $state = fn (): string => collect($this->getJson('/api/units/NET/logbook?period=2026-08')->json('rows'))->firstWhere('id', $leak)['state'];
    expect($state())->toBe('submitted');
    $this->putJson("/api/measurements/{$leak}/readings/2026-08", ['typed' => '64.8', 'version' => 1])->assertOk();
    expect($state())->toBe('entered');
});

it('gives a judged KPI its colour only with a reason, and keeps the reason with the colour', function () {
    $balance = self::measured('BALANCE', 'NET')->id;
    $save = fn (array $input) => $this->as('owner')->putJson("/api/measurements/{$balance}/readings/2026-08", $input + ['version' => 0]);
    $save(['typed' => 'blue'])->assertStatus(422)->assertJsonPath('errors.0.detail', "'blue' is not green, amber or red.");
    $save(['typed' => 'amber'])->assertStatus(422)->assertJsonPath('errors.0.pointer', '/note');
    $save(['typed' => 'amber', 'note' => ['text' => 'One meter in question.', 'outlook' => '', 'doing' => '', 'version' => 0]])->assertOk()
        ->assertJsonPath('typed', 'amber')->assertJsonPath('verdict.status', 'amber')->assertJsonPath('note.text', 'One meter in question.');
    $version = DB::table('notes')->where('kpi_unit_id', $balance)->where('period', '2026-08-01')->value('version');
    $this->putJson("/api/measurements/{$balance}/notes/2026-08", ['text' => '', 'outlook' => '', 'doing' => '', 'version' => $version])->assertStatus(422)->assertJsonPath('errors.0.detail', 'A colour needs its reason: take the colour back first.');
});

it('closes a month for a unit and all below it, reopens it with a reason, and remembers who and why', function () {
    $this->as('analyst')->putJson('/api/units/NET/closing?period=2026-09')->assertStatus(422)->assertJsonPath('errors.0.detail', 'September 2026 is not over yet.');
    $this->putJson('/api/units/NET/closing?period=2026-08')->assertOk()->assertJsonPath('units.0.closedBy', 'Ines Marrow')->assertJsonPath('units.*.closed', array_fill(0, 13, true));
    $this->getJson('/api/units/NET/ribbon?period=2026-08')->assertJsonPath('months.4.closed', true);
    $this->getJson('/api/units/OST/ribbon?period=2026-08')->assertJsonPath('months.4.closed', false);

    $this->postJson('/api/units/Z-FENWICK/reopening?period=2026-08', ['reason' => ' '])->assertStatus(422)->assertJsonPath('errors.0.pointer', '/reason');
    $this->postJson('/api/units/Z-FENWICK/reopening?period=2026-08', ['reason' => 'A late correction'])->assertOk();
    // The unit above is not complete any longer; its other zones stay closed.
    $open = collect($this->getJson('/api/units/NET/closing?period=2026-08')->json('units'))->where('closed', false)->pluck('code')->all();
    expect($open)->toBe(['NET', 'Z-FENWICK'])
        ->and($this->getJson('/api/changes?subject=closing&unit=Z-FENWICK')->json('changes.0'))->toMatchArray(['by' => 'Ines Marrow', 'how' => 'removed', 'unit' => 'Fenwick', 'period' => '2026-08', 'reason' => 'A late correction']);
});

it('lets nothing change in a closed month, by whatever route', function (Closure $write, int $status) {
    $this->as('analyst');
    $before = DB::table('readings')->where('period', '<=', '2026-06-01')->sum('version');
    $write($this)->assertStatus($status);

    expect(DB::table('readings')->where('period', '<=', '2026-06-01')->sum('version'))->toBe($before);
})->with([
    'a reading' => [fn ($test) => $test->putJson('/api/measurements/'.$test->measuredId('LEAK').'/readings/2026-06', ['typed' => '1', 'version' => 1]), 422],
    'a note' => [fn ($test) => $test->putJson('/api/measurements/'.$test->measuredId('LEAK').'/notes/2026-06', ['text' => 'x', 'outlook' => '', 'doing' => '', 'version' => 1]), 422],
    'cells' => [fn ($test) => tap($test->putJson('/api/units/NET/cells?period=2026-08&layer=actual&columns=month', ['layer' => 'actual', 'cells' => [['measurement' => $test->measuredId('LEAK'), 'period' => '2026-06', 'typed' => '1', 'was' => '59.7']]]), fn ($answer) => expect($answer->json('outcomes.0.outcome'))->toBe('refused')), 200],
    'targets' => [fn ($test) => tap($test->putJson('/api/units/NET/cells?period=2026-08&layer=target&columns=month', ['layer' => 'target', 'cells' => [['measurement' => $test->measuredId('LEAK'), 'period' => '2026-06', 'typed' => '1', 'was' => '56.0']]]), fn ($answer) => expect($answer->json('outcomes.0.outcome'))->toBe('refused')), 200],
    'a definition that recolours' => [fn ($test) => $test->putJson('/api/kpis/LEAK?period=2026-08', [...$test->getJson('/api/kpis/LEAK?period=2026-08')->json(), 'polarity' => 'higher']), 422],
    'many definitions' => [fn ($test) => $test->patchJson('/api/kpis', ['codes' => ['ENGAGED'], 'until' => '2025-03']), 422],
    'a file' => [fn ($test) => tap($test->postJson('/api/units/NET/imports', ['file' => UploadedFile::fake()->createWithContent('f.csv', "kpi,unit,period,actual\nLEAK,NET,2026-06,1\n")]), fn ($answer) => tap($test->putJson("/api/imports/{$answer->json('id')}/mapping", ['roles' => ['kpi', 'unit', 'period', 'actual']]), fn () => expect($test->getJson("/api/imports/{$answer->json('id')}")->json('counts.refused'))->toBe(1))), 201],
]);

it('holds the lock in the database itself', function (string $statement) {
    expect(fn () => DB::transaction(fn () => DB::statement($statement)))->toThrow(Illuminate\Database\QueryException::class, 'The month is closed');
})->with([
    ["UPDATE readings SET version = version + 1 WHERE period = '2026-06-01'"],
    ["DELETE FROM targets WHERE period = '2026-06-01'"],
    ["UPDATE notes SET text = 'x' WHERE period = '2026-06-01'"],
    // A week and a quarter are closed with the month in which they end.
    ["UPDATE readings SET actual = 1 WHERE kpi_unit_id = (SELECT kpi_unit.id FROM kpi_unit JOIN kpis ON kpis.id = kpi_id WHERE code = 'AUDIT') AND period = '2026-04-01'"],
    ["UPDATE readings SET actual = 1 WHERE kpi_unit_id = (SELECT kpi_unit.id FROM kpi_unit JOIN kpis ON kpis.id = kpi_id WHERE code = 'WAITING') AND period = '2026-06-22'"],
    ["UPDATE readings SET actual = 1 WHERE kpi_unit_id = (SELECT kpi_unit.id FROM kpi_unit JOIN kpis ON kpis.id = kpi_id WHERE code = 'ENGAGED') AND period = '2025-04-01'"],
]);

it('lets change what ends in a month that is open, though it begins in a closed one', function (string $code, string $period) {
    $id = DB::table('kpi_unit')->join('kpis', 'kpis.id', '=', 'kpi_id')->where('code', $code)->value('kpi_unit.id');
    DB::table('readings')->upsert([['kpi_unit_id' => $id, 'period' => $period, 'actual' => 3]], ['kpi_unit_id', 'period'], ['actual']);

    expect(DB::table('readings')->where(['kpi_unit_id' => $id, 'period' => $period])->value('actual'))->toStartWith('3.0');
})->with([
    // Its Thursday is 2 July.
    'a week' => ['WAITING', '2026-06-29'],
    'a year' => ['ENGAGED', '2026-04-01'],
]);

it('writes every change to the trail, with who, before and after, and shows people what is theirs', function () {
    $night = self::measured('NIGHT', 'NET')->id;
    $this->as('owner')->putJson("/api/measurements/{$night}/readings/2026-08", ['typed' => '1.9', 'version' => 0])->assertOk();
    $this->putJson("/api/measurements/{$night}/readings/2026-08", ['typed' => '1.75', 'version' => 1])->assertOk();
    $kpi = $this->as('analyst')->getJson('/api/kpis/LEAK?period=2026-08')->json();
    $this->putJson('/api/kpis/LEAK?period=2026-08', [...$kpi, 'name' => 'Losses', 'rule' => [...$kpi['rule'], 'from' => '2026-08', 'amber' => '7']])->assertOk();

    $changes = fn (string $filter): array => $this->getJson("/api/changes?{$filter}")->assertOk()->json('changes');
    expect($changes('kpi=NIGHT&subject=reading')[0])->toMatchArray(['by' => 'Tom Fairley', 'what' => 'reading', 'how' => 'changed', 'unit' => 'Network', 'period' => '2026-08', 'fields' => [['field' => '', 'before' => '1.9', 'after' => '1.75']]])
        ->and($changes('kpi=NIGHT&subject=reading')[1]['how'])->toBe('made')
        ->and(collect($changes('subject=definition'))->firstWhere('what', 'definition')['fields'])->toBe([['field' => 'name', 'before' => 'Leakage', 'after' => 'Losses']])
        ->and(collect($changes('subject=definition'))->firstWhere('what', 'rule set')['how'])->toBe('made')
        ->and($changes('month=2026-08&person='.User::query()->where('name', 'Tom Fairley')->value('id')))->toHaveCount(2)
        ->and($changes('month=2026-07'))->toBe([]);
    $this->as('owner');
    expect(array_values(array_unique(array_column($changes(''), 'code'))))->toBe(['LEAK', 'NIGHT']);
    $this->as('owner.wst');
    expect($changes(''))->toBe([]);
});

it('tells of a figure that is moved to another month as removed there and made here, also when it is moved by hand', function () {
    DB::update("UPDATE readings SET period = '2026-08-01' WHERE kpi_unit_id = ? AND period = '2026-07-01'", [self::measured('NIGHT', 'NET')->id]);
    $changes = $this->as('analyst')->getJson('/api/changes?kpi=NIGHT&subject=reading')->assertOk()->json('changes');

    expect(collect($changes)->mapWithKeys(fn (array $change): array => [$change['period'] => $change['how']])->all())->toEqual(['2026-07' => 'removed', '2026-08' => 'made'])
        ->and(array_column($changes, 'by'))->toBe([null, null]);
});
