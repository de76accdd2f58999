<?php

declare(strict_types=1);

use App\Models\Kpi;
use App\Models\RuleSet;
use Illuminate\Database\QueryException;
use Illuminate\Http\UploadedFile;
use Illuminate\Support\Facades\DB;

/** @param  array<string, mixed>  $change */
function definition(array $change = []): array
{
    return array_replace_recursive([
        'code' => 'HYDRANTS', 'name' => 'Hydrants inspected', 'purpose' => 'Inspections done.', 'objective' => 'SERVE', 'level' => 'departmental', 'theme' => 'Supply',
        'department' => 'NET', 'source' => 'Job system', 'dueDay' => 8, 'dataAvailable' => true, 'definitionAgreed' => true, 'noteRequired' => false,
        'kind' => 'entered', 'measure' => 'hydrants', 'decimals' => 0, 'scaled' => false, 'frequency' => 'month', 'accumulation' => 'sum', 'formula' => '', 'targetFormula' => '', 'lowFormula' => '', 'highFormula' => '',
        'min' => '0', 'max' => '', 'materiality' => '', 'gather' => '', 'weightedBy' => null, 'polarity' => 'higher',
        'rule' => ['from' => '2026-04', 'reference' => 'target', 'measure' => 'percent', 'green' => '0', 'amber' => '10'],
        'texts' => ['green' => 'Every hydrant on its day', 'amber' => '', 'red' => ''],
        'units' => [['unit' => 'NET', 'weight' => 1, 'owner' => null, 'from' => null, 'to' => null, 'gathered' => false, 'rule' => null]],
        'drivers' => [], 'targets' => ['NET' => ['2026-08' => '1,200']], 'yearTargets' => [], 'version' => 0,
    ], $change);
}

it('defines a KPI with its rule, its units and its targets', function () {
    $this->as('analyst')->postJson('/api/kpis?period=2026-08', definition(['code' => ' HYDRANTS ']))->assertCreated()
        ->assertJsonPath('code', 'HYDRANTS')->assertJsonPath('rule.amber', '10')->assertJsonPath('targets.NET.2026-08', '1200')->assertJsonPath('version', 1)
        ->assertJsonPath('openQuestions', ['Who enters it?'])->assertJsonPath('texts.green', 'Every hydrant on its day');

    $this->getJson('/api/units/NET/scorecard?period=2026-08&span=month')->assertOk()
        ->assertJsonFragment(['name' => 'Hydrants inspected', 'status' => 'no-data', 'exact' => '1200']);
});

it('defines every kind of KPI and reads it back as it was typed', function (array $change) {
    $typed = ['targets' => []] + definition($change);
    $saved = $this->as('analyst')->postJson('/api/kpis?period=2026-08', $typed)->assertCreated()->json();
    $again = $this->putJson('/api/kpis/HYDRANTS?period=2026-08', $saved)->assertOk()->json();

    expect(array_intersect_key($saved, $change))->toEqual(array_replace_recursive(array_intersect_key($saved, $change), $change))
        ->and(array_diff_key($again, ['version' => 1]))->toBe(array_diff_key($saved, ['version' => 1]));
})->with([
    'a band on its targets' => [['polarity' => 'band', 'accumulation' => 'mean', 'rule' => ['measure' => 'absolute', 'green' => '0', 'amber' => '0.5'], 'yearTargets' => ['NET' => "2 \u{2013} 3"]]],
    'a band by levels' => [['polarity' => 'band', 'accumulation' => 'mean', 'rule' => ['reference' => 'none', 'measure' => 'level', 'low' => '2', 'high' => '3', 'marginLow' => '0.5', 'marginHigh' => '1']]],
    'against recent periods' => [['rule' => ['reference' => 'recent', 'measure' => 'percent', 'periods' => 3]]],
    'against the year target, with a stretch' => [['rule' => ['reference' => 'year-target', 'measure' => 'reached', 'green' => '100', 'amber' => '90', 'stretch' => '1500'], 'yearTargets' => ['NET' => '14400']]],
    'a formula, driven by another' => [['kind' => 'formula', 'formula' => 'BURSTS / RENEWED', 'accumulation' => 'recompute', 'polarity' => 'lower', 'drivers' => ['BURSTS', 'RENEWED']]],
    'judged by a person, by the week' => [['kind' => 'judged', 'measure' => '', 'polarity' => 'none', 'rule' => null, 'min' => '', 'accumulation' => 'latest', 'frequency' => 'week']],
    'a unit with limits, weight and months of its own' => [['units' => [['weight' => 2.5, 'from' => '2026-08', 'to' => '2027-03', 'rule' => ['from' => '2026-08', 'reference' => 'target', 'measure' => 'percent', 'green' => '1', 'amber' => '2']]]]],
    'a target that is worked out' => [['targetFormula' => '0.02 * prior(BURSTS) + target(VALVES)']],
    'a band that is worked out' => [['polarity' => 'band', 'lowFormula' => '0.9 * VALVES', 'highFormula' => '1.1 * VALVES', 'rule' => ['measure' => 'absolute', 'green' => '0', 'amber' => '0.5']]],
    'weighted over units' => [['gather' => 'weighted', 'weightedBy' => 'BURSTS', 'frequency' => 'month']],
]);

it('refuses what cannot be, beside the field', function (array $change, string $pointer, string $words) {
    $answer = $this->as('analyst')->postJson('/api/kpis?period=2026-08', definition($change))->assertStatus(422);

    expect($answer->json('errors'))->toHaveCount(1)
        ->and($answer->json('errors.0.pointer'))->toBe($pointer)
        ->and($answer->json('errors.0.detail'))->toContain($words)
        ->and(Kpi::query()->where('code', 'HYDRANTS')->exists())->toBeFalse();
})->with([
    'a code that is taken' => [['code' => 'LEAK'], '/code', 'taken'],
    'a code of its own making' => [['code' => '7 up!'], '/code', 'letter'],
    'a name that differs by case alone' => [['name' => '  mains  BURSTS '], '/name', 'already defined, as BURSTS'],
    'no name' => [['name' => ' '], '/name', 'needs a name'],
    'green looser than amber' => [['rule' => ['green' => '12']], '/rule/amber', '12 %'],
    'a limit that is no number' => [['rule' => ['green' => 'five']], '/rule/green', "'five'"],
    'no limit at all' => [['rule' => ['amber' => '']], '/rule/green', "'amber' is missing"],
    'levels against a target' => [['rule' => ['measure' => 'level']], '/rule/measure', 'does not go with'],
    'a year target on a mean' => [['accumulation' => 'mean', 'rule' => ['reference' => 'year-target', 'measure' => 'reached', 'green' => '100', 'amber' => '90']], '/rule/measure', 'for totals'],
    'a band of which nothing is better' => [['polarity' => 'band', 'accumulation' => 'mean', 'rule' => ['measure' => 'reached', 'green' => '100', 'amber' => '90'], 'targets' => ['NET' => ['2026-08' => '']]], '/rule/measure', 'on a band'],
    'an upper bound below the lower one' => [['min' => '5', 'max' => '4'], '/max', '5 or more'],
    'a formula that names nothing known' => [['kind' => 'formula', 'formula' => 'BURSTS / NOPE', 'accumulation' => 'recompute'], '/formula', "no KPI 'NOPE'"],
    'no formula' => [['kind' => 'formula', 'accumulation' => 'recompute'], '/formula', 'formula is missing'],
    'a formula that breaks off' => [['kind' => 'formula', 'formula' => '(BURSTS', 'accumulation' => 'recompute'], '/formula', 'Unclosed'],
    'a formula over another frequency' => [['kind' => 'formula', 'formula' => 'AUDIT * 2', 'accumulation' => 'recompute'], '/formula', 'by the quarter'],
    'a target that leads back to itself' => [['targetFormula' => '2 * target(HYDRANTS)'], '/targetFormula', 'HYDRANTS > HYDRANTS'],
    'half a band that is worked out' => [['polarity' => 'band', 'lowFormula' => 'VALVES', 'rule' => ['measure' => 'absolute'], 'targets' => ['NET' => ['2026-08' => '']]], '/highFormula', 'both its targets'],
    'recomputing what is entered' => [['accumulation' => 'recompute'], '/accumulation', 'Only a formula KPI'],
    'a driver that is not there' => [['drivers' => ['NOPE']], '/drivers/0', 'no KPI'],
    'a weight below nothing' => [['units' => [['weight' => -1]]], '/units/0/weight', 'from 0'],
    'a last month before the first' => [['units' => [['from' => '2026-08', 'to' => '2026-07']]], '/units/0/to', 'before 2026-08'],
    'gathered without saying how' => [['units' => [['gathered' => true]]], '/units/0/gathered', 'how it is gathered'],
    'a target that is no number' => [['targets' => ['NET' => ['2026-09' => '1,2,3']]], '/targets/NET/2026-09', '1,2,3'],
    'a month that is none' => [['rule' => ['from' => '2026-13']], '/rule/from', 'not a month'],
]);

it('says how a formula leads back to itself, and keeps operands from being renamed away', function () {
    $kpi = $this->as('analyst')->getJson('/api/kpis/NRW?period=2026-08')->json();
    $this->putJson('/api/kpis/NRW?period=2026-08', [...$kpi, 'formula' => 'NRW + BILLED'])->assertStatus(422)
        ->assertJsonPath('errors.0.pointer', '/formula')->assertJsonPath('errors.0.detail', 'A formula cannot lead back to itself: NRW > NRW.');
    $billed = $this->getJson('/api/kpis/BILLED?period=2026-08')->json();
    $this->putJson('/api/kpis/BILLED?period=2026-08', [...$billed, 'code' => 'SOLD'])->assertStatus(422)->assertJsonPath('errors.0.pointer', '/code');
    $bursts = $this->getJson('/api/kpis/BURSTS?period=2026-08')->json();
    $answer = $this->putJson('/api/kpis/BURSTS?period=2026-08', [...$bursts, 'drivers' => ['LEAK']])->assertStatus(422)->assertJsonPath('errors.0.pointer', '/drivers');
    expect($answer->json('errors.0.detail'))->toContain('A KPI cannot drive itself')->toContain('BURSTS > LEAK > BURSTS');
});

it('reads figures by the number setting of the person', function () {
    $this->as('analyst')->patchJson('/api/session', ['locale' => 'de-DE'])->assertOk();
    $this->postJson('/api/kpis?period=2026-08', definition(['targets' => ['NET' => ['2026-08' => '1.200,5']]]))->assertCreated()
        ->assertJsonPath('targets.NET.2026-08', '1200,5');
});

it('dates a changed rule, leaves an unchanged one alone, and keeps the colours of closed months', function () {
    $kpi = $this->as('analyst')->getJson('/api/kpis/LEAK?period=2026-08')->json();
    $rules = fn (): array => RuleSet::query()->whereRelation('kpi', 'code', 'LEAK')->orderBy('valid_from')->pluck('amber', 'valid_from')->all();
    $put = fn (array $rule, int $version = 1) => $this->putJson('/api/kpis/LEAK?period=2026-08', [...$kpi, 'version' => $version, 'rule' => [...$kpi['rule'], ...$rule]]);

    $put(['from' => '2026-06'])->assertOk();
    expect($rules())->toBe(['2024-04-01' => '5.00000000']);

    $put(['from' => '2026-08', 'amber' => '20'], 2)->assertOk();
    expect($rules())->toBe(['2024-04-01' => '5.00000000', '2026-08-01' => '20.00000000']);

    $status = fn (string $period): string => collect($this->getJson("/api/units/NET/scorecard?period={$period}&span=month")->json('groups.*.rows.*'))->firstWhere('code', 'LEAK')['status'];
    expect($status('2026-07'))->toBe('red')->and($status('2026-08'))->toBe('amber');

    $refused = $put(['from' => '2026-05', 'amber' => '20'], 3)->assertStatus(422)->assertJsonPath('errors.0.pointer', '/rule/from');
    expect($refused->json('errors.0.detail'))->toContain('Closed months keep their colours')->toContain('Leakage in Network, May 2026 (off course would be drifting)')
        ->and($rules())->toHaveCount(2);
});

it('replays the last two years under a rule that is being typed, and saves nothing', function () {
    $rule = fn (string $amber, string $green = '0'): array => ['from' => '2026-09', 'reference' => 'target', 'measure' => 'percent', 'green' => $green, 'amber' => $amber];
    $replay = fn (array $rule, array $targets = []) => $this->as('analyst')->postJson('/api/replay?period=2026-08', [
        'code' => 'LEAK', 'unit' => 'NET', 'polarity' => 'lower', 'accumulation' => 'mean', 'rule' => $rule, 'targets' => $targets,
    ]);

    $same = $replay($rule('5'))->assertOk();
    expect($same->json('periods'))->toHaveCount(24)->and($same->json('asTyped'))->toBe($same->json('asIs'))->and($same->json('words'))->toBe('No month would change.');

    $looser = $replay($rule('8'))->assertOk()->json();
    $changed = array_values(array_filter($looser['periods'], fn (array $each): bool => $each['asIs'] !== $each['asTyped']));
    expect(array_column($changed, 'period'))->toBe(['2026-05', '2026-06'])->and($looser['words'])->toBe('2 months would change, all from off course to drifting.')
        ->and($looser['latest'])->toContain('August 2026: Off course')->not->toContain('Limits since');
    expect($replay($rule('5'), ['2026-08' => '70'])->json('periods.23.asTyped'))->toBe('green');

    $replay($rule('0', '5'))->assertStatus(422)->assertJsonPath('errors.0.pointer', '/rule/amber');
    expect(RuleSet::query()->whereRelation('kpi', 'code', 'LEAK')->count())->toBe(1);
});

it('checks a formula while it is written: its place, its circle, its values', function (string $formula, string $problem, ?int $place, ?string $last) {
    $check = $this->as('analyst')->postJson('/api/formula?period=2026-08', ['code' => 'NRW', 'formula' => $formula, 'isTarget' => false, 'unit' => 'NET', 'frequency' => 'month', 'accumulation' => 'recompute', 'decimals' => 1])->assertOk();

    expect($check->json('problem'))->toBe($problem)->and($check->json('place'))->toBe($place)->and($check->json('values.5.digits'))->toBe($last);
})->with([
    'sound' => ['("SYS-IN" - BILLED) / "SYS-IN" * 100', '', null, '17.4'],
    'an unknown operand' => ['BILLED + NOPE', "There is no KPI 'NOPE'.", 10, null],
    'a judged operand' => ['BILLED + BALANCE', "'BALANCE' is judged and has no number.", 10, null],
    'a circle' => ['NRW + 1', 'A formula cannot lead back to itself: NRW > NRW.', 1, null],
    'a zero divisor' => ['BILLED / (BILLED - BILLED)', '', null, null],
    'a missing operand' => ['NIGHT * 2', '', null, null],
]);

it('works targets out, replays them while they are typed, and keeps what they name', function () {
    $body = ['code' => 'PUMP-COST', 'unit' => 'NET', 'polarity' => 'lower', 'accumulation' => 'sum', 'rule' => ['from' => '2026-09', 'reference' => 'target', 'measure' => 'percent', 'green' => '0', 'amber' => '3'], 'targets' => []];
    $replay = fn (string $formula, array $more = []): array => $this->as('analyst')->postJson('/api/replay?period=2026-08', [...$body, 'targetFormula' => $formula, ...$more])->assertOk()->json();
    $same = $replay('14.2 * "SYS-IN"');
    $pumped = (string) DB::scalar("SELECT trim_scale(actual * 14.2) FROM readings WHERE kpi_unit_id = ? AND period = '2026-08-01'", [$this->measuredId('SYS-IN')]);
    expect($same['words'])->toBe('No month would change.')->and($same['periods'][23]['target'])->toBe($pumped);
    // By its own figures a year before every month of the rise is over, and without a formula there is no target at all.
    $prior = $replay('prior("PUMP-COST")');
    expect($prior['periods'][23]['target'])->toBe($prior['periods'][11]['actual'])->and($replay('')['periods'][23])->toMatchArray(['target' => null, 'asTyped' => 'not-judged'])
        ->and($replay('nonsense(')['periods'][23]['target'])->toBeNull()
        ->and($replay('14.2 * "SYS-IN"', ['targets' => ['2026-08' => '1']])['periods'][23])->toMatchArray(['target' => '1', 'asTyped' => 'red']);

    $this->deleteJson('/api/kpis/SYS-IN')->assertStatus(422);
    $try = fn (string $formula): array => $this->postJson('/api/formula?period=2026-08', ['code' => 'PUMP-COST', 'formula' => $formula, 'isTarget' => true, 'unit' => 'NET', 'frequency' => 'month', 'accumulation' => 'sum', 'decimals' => 0])->assertOk()->json();
    expect($try('prior("PUMP-COST")')['values'][5]['digits'])->toBe($prior['periods'][11]['actual'])
        ->and($try('target(INLET)'))->toMatchArray(['problem' => "'INLET' aims at a band and has no single target.", 'place' => 8])
        ->and($try('prior(NIGHT'))->toMatchArray(['values' => []]);
});

it('changes common fields of many KPIs at once, retires them, and moves them from a month on', function () {
    $bulk = fn (array $change) => $this->as('analyst')->patchJson('/api/kpis', $change);
    $bulk(['codes' => ['VALVES', 'NIGHT'], 'dueDay' => 5, 'theme' => 'Sewers', 'noteRequired' => true])->assertOk();
    expect(Kpi::query()->whereIn('code', ['VALVES', 'NIGHT'])->pluck('due_day')->all())->toBe([5, 5])->and(Kpi::query()->where('code', 'LEAK')->value('due_day'))->toBe(8);

    $bulk(['codes' => ['SHUTDOWNS'], 'until' => '2026-07'])->assertStatus(422)->assertJsonPath('errors.0.detail', 'Planned shutdowns on time has readings after July 2026. Choose a later month, or take them back first.');
    $bulk(['codes' => ['SHUTDOWNS'], 'until' => '2026-08'])->assertOk();
    $this->getJson('/api/units/NET/logbook?period=2026-09')->assertJsonMissing(['code' => 'SHUTDOWNS'])->assertJsonFragment(['code' => 'LEAK']);
    $this->getJson('/api/units/NET/logbook?period=2026-08')->assertJsonFragment(['code' => 'SHUTDOWNS']);

    $bulk(['codes' => ['VALVES'], 'moveFrom' => 'NET', 'moveTo' => 'TRT', 'moveAt' => '2026-09'])->assertOk();
    expect($this->getJson('/api/kpis/VALVES?period=2026-09')->json('units.*.unit'))->toBe(['NET', 'TRT'])
        ->and($this->getJson('/api/kpis/VALVES?period=2026-09')->json('units.0.to'))->toBe('2026-08');
});

it('keeps themes and objectives: renames, orders, adds, and removes what is not used', function () {
    $page = $this->as('analyst')->getJson('/api/kpis')->json();
    [$first, $second] = $page['themes'];
    $save = fn (array $themes, ?array $objectives = null) => $this->putJson('/api/lists', ['themes' => $themes, 'objectives' => $objectives ?? $page['objectives']]);

    $swapped = [[...$second, 'name' => $first['name']], [...$first, 'name' => $second['name']], ...array_slice($page['themes'], 2), ['id' => null, 'code' => '', 'name' => 'Storms', 'kpis' => 0]];
    $saved = $save($swapped)->assertOk()->json('themes');
    expect(array_column($saved, 'name'))->toBe([...array_column($page['themes'], 'name'), 'Storms'])->and($saved[0]['id'])->toBe($second['id']);
    $save(array_slice($saved, 0, -1))->assertOk();
    $save(array_slice($saved, 1, -1))->assertStatus(422)->assertJsonPath('errors.0.pointer', '/themes');
    $save(array_slice($saved, 0, -1), [...$page['objectives'], ['id' => null, 'code' => 'SERVE', 'name' => 'Again', 'kpis' => 0]])->assertStatus(422)->assertJsonPath('errors.0.detail', 'This code stands here twice.');
});

it('plans targets, keeping what is closed, and says what rounding leaves over', function () {
    $plan = fn (array $change) => $this->as('analyst')->postJson('/api/targets/plan', $change + [
        'unit' => 'NET', 'period' => '2026-08', 'codes' => ['BURSTS'], 'figures' => [], 'weights' => [], 'percent' => '', 'amount' => '', 'decimals' => null,
    ]);
    $id = self::measured('BURSTS', 'NET')->id;
    $even = $plan(['method' => 'even', 'figures' => [$id => '700']])->assertOk()->json('rows.0');
    $kept = array_map(intval(...), array_slice($even['current'], 0, 3));
    $share = (int) round((700 - array_sum($kept)) / 9);

    expect(array_map(intval(...), $even['planned']))->toBe([...$kept, ...array_fill(0, 8, $share), 700 - array_sum($kept) - 8 * $share])
        ->and($even['kept'])->toBe([true, true, true, ...array_fill(0, 9, false)])->and($even['gathered'])->toBe('700')
        ->and($even['remainder'])->toBe((string) (700 - array_sum($kept) - 9 * $share))->and($even['remainderAt'])->toBe('2027-03');

    $grown = $plan(['method' => 'growth', 'percent' => '10', 'amount' => '-2'])->json('rows.0');
    expect($grown['planned'][11])->toBe((string) (int) round($grown['prior'][11] * 1.1 - 2));
    expect($plan(['method' => 'even', 'codes' => ['INLET']])->json('rows.0.problem'))->toContain('band');
    $plan(['method' => 'growth', 'percent' => 'ten'])->assertStatus(422)->assertJsonPath('errors.0.pointer', '/percent');
});

it('moves definitions out and in as tables and workbooks, previewed and all or nothing', function (string $format) {
    $file = fn (string $content, string $name): array => ['file' => UploadedFile::fake()->createWithContent($name, $content)];
    $exported = $this->as('analyst')->get("/api/definitions?format={$format}")->assertOk()->streamedContent();
    $same = $this->postJson('/api/definitions', $file($exported, "definitions.{$format}"))->assertOk()->json();
    expect(array_unique(array_column($same['rows'], 'outcome')))->toBe(['same'])->and($same['rows'])->toHaveCount(90);
})->with(['csv', 'xlsx', 'ods', 'json']);

it('changes what a table of definitions says, or nothing where one of them is refused', function () {
    $send = fn (string $csv) => $this->as('analyst')->postJson('/api/definitions', ['file' => UploadedFile::fake()->createWithContent('d.csv', $csv)])->assertOk()->json();
    $head = "code;name;kind;measure;polarity;accumulation;units;ruleFrom;ruleReference;ruleMeasure;ruleGreen;ruleAmber\n";
    $bad = $send($head."LEAK;Losses;entered;Ml/d;lower;mean;NET;;;;;\nNEW1;New one;entered;x;sideways;sum;NET;;;;;\n");
    expect(array_column($bad['rows'], 'outcome'))->toBe(['changed', 'refused'])->and($bad['rows'][0]['words'])->toBe(['name: Leakage → Losses']);
    $this->postJson("/api/definitions/{$bad['upload']}")->assertStatus(422);
    expect(Kpi::query()->where('code', 'LEAK')->value('name'))->toBe('Leakage');

    $good = $send($head."LEAK;Losses;entered;Ml/d;lower;mean;NET;;;;;\nNEW1;New one;entered;x;higher;sum;NET;2026-08;target;percent;0;5\n");
    $this->postJson("/api/definitions/{$good['upload']}")->assertOk()->assertJsonPath('applied', true);
    expect(Kpi::query()->where('code', 'LEAK')->value('name'))->toBe('Losses')->and(RuleSet::query()->whereRelation('kpi', 'code', 'NEW1')->value('amber'))->toBe('5.00000000')
        ->and(RuleSet::query()->whereRelation('kpi', 'code', 'LEAK')->count())->toBe(1);
});

it('does not overwrite what another analyst changed', function () {
    $kpi = $this->as('analyst')->getJson('/api/kpis/LEAK?period=2026-08')->json();
    $this->putJson('/api/kpis/LEAK?period=2026-08', [...$kpi, 'name' => 'Leakage, all zones'])->assertOk();
    $this->putJson('/api/kpis/LEAK?period=2026-08', [...$kpi, 'name' => 'Losses'])->assertStatus(409)->assertJsonPath('title', 'Somebody else was faster');

    expect(Kpi::query()->where('code', 'LEAK')->value('name'))->toBe('Leakage, all zones');
});

it('keeps a unit that has figures, and saves nothing by halves', function () {
    $kpi = $this->as('analyst')->getJson('/api/kpis/Z-LEAK?period=2026-08')->json();
    $units = array_values(array_filter($kpi['units'], fn (array $place): bool => $place['unit'] !== 'Z-FENWICK'));

    $this->putJson('/api/kpis/Z-LEAK?period=2026-08', [...$kpi, 'name' => 'Half saved', 'units' => $units])
        ->assertStatus(422)->assertJsonPath('errors.0.detail', 'Fenwick has figures of this KPI, so it stays. Give it a last month instead.');
    expect(Kpi::query()->where('code', 'Z-LEAK')->value('name'))->toBe('Leakage per connection');
});

it('holds in the database what must never be broken', function (string $statement) {
    expect(fn () => DB::transaction(fn () => DB::statement($statement)))->toThrow(Illuminate\Database\QueryException::class);
})->with([
    'a name twice' => ["INSERT INTO kpis (code, name, department_id, level, polarity, accumulation) SELECT 'TWICE', 'LEAKAGE', department_id, level, polarity, accumulation FROM kpis LIMIT 1"],
    'a period inside a month' => ["INSERT INTO readings (kpi_unit_id, period, actual) SELECT id, '2027-01-15', 1 FROM kpi_unit LIMIT 1"],
    'a second reading of a month' => ['INSERT INTO readings (kpi_unit_id, period, actual) SELECT kpi_unit_id, period, 1 FROM readings LIMIT 1'],
    'limits out of order' => ["UPDATE rule_sets SET green = amber + 1 WHERE measure = 'percent'"],
    'a second root' => ["INSERT INTO units (code, name, kind) VALUES ('TWO', 'Two', 'organisation')"],
    'a unit with figures' => ["DELETE FROM units WHERE code = 'NET'"],
]);

it('deletes a KPI that was defined by mistake, and no other', function () {
    $definition = $this->as('analyst')->getJson('/api/kpis/BURSTS?period=2026-08')->json();
    $this->postJson('/api/kpis?period=2026-08', [...$definition, 'code' => 'Mistake', 'name' => 'A mistake', 'version' => 0, 'targets' => (object) []])->assertCreated();
    $this->as('owner.wst')->deleteJson('/api/kpis/Mistake')->assertNotFound();
    $this->as('head')->deleteJson('/api/kpis/Mistake')->assertForbidden();
    $this->as('analyst')->deleteJson('/api/kpis/Mistake')->assertNoContent();
    $this->getJson('/api/kpis/Mistake?period=2026-08')->assertNotFound();
    $this->deleteJson('/api/kpis/BURSTS')->assertStatus(422)->assertJsonPath('errors.0.detail', "{$definition['name']} has figures, so it stays. Retire it from a month on instead.");
});

it('takes codes that differ only in case for one, everywhere', function () {
    $definition = $this->as('analyst')->getJson('/api/kpis/BURSTS?period=2026-08')->json();
    $this->postJson('/api/kpis?period=2026-08', [...$definition, 'code' => 'bursts', 'name' => 'Other', 'version' => 0])->assertStatus(422)
        ->assertJsonPath('errors.0', ['pointer' => '/code', 'detail' => "The code BURSTS is taken by {$definition['name']}."]);
    expect(fn () => DB::table('units')->insert(['code' => 'net', 'name' => 'Other', 'kind' => 'unit', 'parent_id' => DB::table('units')->value('id')]))->toThrow(QueryException::class, 'units_code_any_case');
});

it('leaves targets that somebody else has changed in the meantime, and says so where one is at odds', function () {
    $mine = $this->as('analyst')->getJson('/api/kpis/LEAK?period=2026-08')->json();
    $seen = $mine['targets']['NET'];
    DB::table('targets')->where('kpi_unit_id', $this->measuredId('LEAK'))->whereIn('period', ['2026-12-01', '2027-01-01'])->update(['target' => 50]);
    $save = fn (array $targets, int $version) => $this->putJson('/api/kpis/LEAK?period=2026-08', [
        ...$mine, 'name' => "Leakage {$version}", 'version' => $version, 'targets' => ['NET' => [...$seen, ...$targets]], 'seenTargets' => ['NET' => $seen], 'seenYearTargets' => $mine['yearTargets'],
    ]);
    $save(['2027-02' => '57'], 1)->assertOk()->assertJsonPath('targets.NET.2026-12', '50.0')->assertJsonPath('targets.NET.2027-02', '57.0');
    $save(['2026-12' => '58'], 2)->assertStatus(422)->assertJsonPath('errors.0', ['pointer' => '/targets/NET/2026-12', 'detail' => 'Somebody changed this in the meantime: it is 50.0 now. Open the KPI again to see all of it.']);
});

it('takes the history of a KPI that is new in a unit until the next closing there', function () {
    $definition = $this->as('analyst')->getJson('/api/kpis/BURSTS?period=2026-08')->json();
    $this->postJson('/api/kpis?period=2026-08', [...$definition, 'code' => 'FRESH', 'name' => 'A new one', 'version' => 0, 'targets' => (object) []])->assertCreated();
    $fresh = $this->measuredId('FRESH');
    DB::table('kpi_unit')->where('id', $fresh)->update(['created_at' => now()->addSecond()]);
    $this->putJson("/api/measurements/{$fresh}/readings/2026-05", ['typed' => '12', 'version' => 0])->assertOk()->assertJsonPath('lock', '');
    $this->putJson('/api/measurements/'.$this->measuredId('BURSTS').'/readings/2026-05', ['typed' => '12', 'version' => 1])->assertStatus(422);

    DB::table('period_states')->where('unit_id', self::measured('BURSTS', 'NET')->unit_id)->where('period', '2026-06-01')->update(['closed_at' => now()->addSeconds(2)]);
    app()->forgetScopedInstances();
    $this->putJson("/api/measurements/{$fresh}/readings/2026-05", ['typed' => '13', 'version' => 1])->assertStatus(422);
    expect(fn () => DB::table('readings')->where('kpi_unit_id', $fresh)->update(['actual' => 14]))->toThrow(QueryException::class, 'The month is closed');
});

describe('common measures to begin with', function () {
    it('are all sound definitions, in every function, and worked out from what the list has', function () {
        $this->world();
        $list = $this->being('analyst')->getJson('/api/starters')->assertOk()->json();
        expect(count($list))->toBeGreaterThanOrEqual(80)->and(count(array_unique(array_column($list, 'function'))))->toBeGreaterThanOrEqual(10)
            ->and(array_diff(array_merge(...array_column($list, 'needs')), array_column($list, 'code')))->toBe([]);
        $taken = $this->postJson('/api/starters', ['codes' => array_column($list, 'code'), 'unit' => 'NORTH'])->assertCreated()->json();
        expect($taken)->toEqualCanonicalizing(array_column($list, 'code'));
        $rows = array_column($this->getJson('/api/kpis')->assertOk()->json('kpis'), null, 'code');
        expect($rows['OEE']['open'])->not->toBe([])->and($rows['OEE']['theme'])->toBe('Operations');
        $this->getJson('/api/kpis/OEE?period=2026-07')->assertJsonPath('formula', 'AVAILABLE * EFFECTIVE * QUALITYRATIO / 10000')->assertJsonPath('purpose', 'Availability, effectiveness and quality ratio multiplied: what was made of the time that was planned. Defined after: ISO 22400-2, Key performance indicators for manufacturing operations management: definitions. Its limits are common practice.');
        $this->getJson('/api/kpis/REVENUE?period=2026-07')->assertJsonPath('measure', '£');
    });

    it('bring what they are worked out from, and leave alone what is there', function () {
        $this->world();
        $take = fn (array $codes) => $this->being('analyst')->postJson('/api/starters', ['codes' => $codes, 'unit' => 'SOUTH']);
        expect($take(['CHURN'])->assertCreated()->json())->toEqualCanonicalizing(['LOSTCUST', 'CUSTOMERS', 'CHURN'])->and($take(['CHURN', 'NEWCUST'])->assertCreated()->json())->toBe(['NEWCUST']);
        $take(['NOPE'])->assertStatus(422)->assertJsonPath('errors.0.detail', 'There is no measure NOPE in the list.');
    });

    // ISO 22400-2 gives the overall equipment effectiveness index as availability × effectiveness × quality ratio; the figures are the common worked example, from memory.
    it('work out what their sources say', function () {
        $this->world();
        $this->being('analyst')->postJson('/api/starters', ['codes' => ['OEE', 'NRW', 'INJURYRATE'], 'unit' => 'NORTH'])->assertCreated();
        app()->forgetScopedInstances();
        $write = fn (string $kpi, string $typed) => $this->putJson('/api/measurements/'.Tests\World::id($kpi, 'NORTH').'/readings/2026-07', ['typed' => $typed, 'version' => 0, 'note' => null])->assertOk();
        // 480 minutes planned, 47 of them down; one piece a second when it runs; 19,271 pieces, 423 of them bad: 74.79 %.
        foreach (['TIMEPLANNED' => '7', 'TIMEUSED' => '6.21666667', 'RATE' => '3600', 'PRODUCED' => '19271', 'GOOD' => '18848', 'WATERIN' => '100', 'WATERBILLED' => '72.5', 'HOURSWORKED' => '500000', 'LOSTTIMEINJ' => '3'] as $kpi => $typed) {
            $write($kpi, $typed);
        }
        $figures = [];
        foreach ($this->getJson('/api/units/NORTH/scorecard?period=2026-07&span=month')->assertOk()->json('groups.*.rows.*') as $row) {
            $figures[$row['code']] = $row['actual']['digits'] ?? null;
        }
        expect([$figures['OEE'], $figures['NRW'], $figures['INJURYRATE']])->toMatchArray(['74.8', '27.5', '6.00']);
    });
});
