<?php

declare(strict_types=1);

use App\Models\Kpi;
use App\Models\RuleSet;
use Illuminate\Support\Facades\DB;

/** @param  array<string, mixed>  $change */
function definition(array $change = []): array
{
    return array_replace_recursive([
        'code' => 'HYDRANTS', 'name' => 'Hydrants inspected', 'purpose' => 'Inspections done.', 'measure' => 'hydrants', 'decimals' => 0,
        'scaled' => false, 'department' => 'NET', 'theme' => 'Supply', 'level' => 'departmental', 'polarity' => 'higher',
        'accumulation' => 'sum', 'rule' => ['from' => '2026-04', 'reference' => 'target', 'measure' => 'percent', 'green' => '0', 'amber' => '10'],
        'owner' => null, 'units' => ['NET'], 'targets' => ['NET' => ['2026-08' => '1,200']], 'version' => 0,
    ], $change);
}

it('defines a KPI with its rule, its units and its targets', function () {
    $this->as('analyst')->postJson('/api/kpis?period=2026-08', definition(['code' => ' hydrants ']))->assertCreated()
        ->assertJsonPath('code', 'HYDRANTS')->assertJsonPath('rule.amber', '10')->assertJsonPath('targets.NET.2026-08', '1200')->assertJsonPath('version', 1);

    $this->getJson('/api/units/NET/scorecard?period=2026-08&span=month')->assertOk()
        ->assertJsonFragment(['name' => 'Hydrants inspected', 'status' => 'no-data', 'exact' => '1200']);
});

it('refuses what cannot be, beside the field', function (array $change, string $pointer, string $words) {
    $answer = $this->as('analyst')->postJson('/api/kpis?period=2026-08', definition($change))->assertStatus(422);

    expect($answer->json('errors'))->toHaveCount(1)
        ->and($answer->json('errors.0.pointer'))->toBe($pointer)
        ->and($answer->json('errors.0.detail'))->toContain($words)
        ->and(Kpi::query()->where('code', 'HYDRANTS')->exists())->toBeFalse();
})->with([
    'a code that is taken' => [['code' => 'leak'], '/code', 'taken'],
    'a code of its own making' => [['code' => '7 up!'], '/code', 'letter'],
    'a name that differs by case alone' => [['name' => '  mains  BURSTS '], '/name', 'already defined, as BURSTS'],
    'no name' => [['name' => ' '], '/name', 'needs a name'],
    'green looser than amber' => [['rule' => ['green' => '12']], '/rule/amber', '12 %'],
    'a limit that is no number' => [['rule' => ['green' => 'five']], '/rule/green', "'five'"],
    'no limit at all' => [['rule' => ['amber' => '']], '/rule/amber', 'drifting'],
    'a rule on what is only tracked' => [['polarity' => 'none'], '/rule', 'only tracked'],
    'levels against a target' => [['rule' => ['measure' => 'level']], '/rule/measure', 'does not go with'],
    'a unit of another department' => [['units' => ['WST']], '/units', 'not part of Network'],
    'a target that is no number' => [['targets' => ['NET' => ['2026-09' => '1,2,3']]], '/targets/NET/2026-09', '1,2,3'],
    'a month that is none' => [['rule' => ['from' => '2026-13']], '/rule/from', 'not a month'],
]);

it('reads figures by the number setting of the person', function () {
    $this->as('analyst')->patchJson('/api/session', ['locale' => 'de-DE'])->assertOk();
    $this->postJson('/api/kpis?period=2026-08', definition(['targets' => ['NET' => ['2026-08' => '1.200,5']]]))->assertCreated()
        ->assertJsonPath('targets.NET.2026-08', '1200,5');
});

it('dates a changed rule, and leaves an unchanged one alone', function () {
    $kpi = $this->as('analyst')->getJson('/api/kpis/LEAK?period=2026-08')->json();
    $rules = fn (): array => RuleSet::query()->whereRelation('kpi', 'code', 'LEAK')->orderBy('valid_from')->pluck('amber', 'valid_from')->all();

    $this->putJson('/api/kpis/LEAK?period=2026-08', [...$kpi, 'rule' => [...$kpi['rule'], 'from' => '2026-06']])->assertOk();
    expect($rules())->toBe(['2024-04-01' => '5.00000000']);

    $this->putJson('/api/kpis/LEAK?period=2026-08', [...$kpi, 'version' => 2, 'rule' => [...$kpi['rule'], 'from' => '2026-08', 'amber' => '20']])->assertOk();
    expect($rules())->toBe(['2024-04-01' => '5.00000000', '2026-08-01' => '20.00000000']);

    $status = fn (string $period): string => collect($this->getJson("/api/units/NET/scorecard?period={$period}&span=month")->json('groups.*.rows.*'))->firstWhere('code', 'LEAK')['status'];
    expect($status('2026-07'))->toBe('red')->and($status('2026-08'))->toBe('amber');
});

it('does not overwrite what another analyst changed', function () {
    $kpi = $this->as('analyst')->getJson('/api/kpis/LEAK?period=2026-08')->json();
    $this->putJson('/api/kpis/LEAK?period=2026-08', [...$kpi, 'name' => 'Leakage, all zones'])->assertOk();
    $this->putJson('/api/kpis/LEAK?period=2026-08', [...$kpi, 'name' => 'Losses'])->assertStatus(409)->assertJsonPath('title', 'Somebody else was faster');

    expect(Kpi::query()->where('code', 'LEAK')->value('name'))->toBe('Leakage, all zones');
});

it('keeps a unit that has figures, and saves nothing by halves', function () {
    $kpi = $this->as('analyst')->getJson('/api/kpis/Z-LEAK?period=2026-08')->json();
    $units = array_values(array_diff($kpi['units'], ['Z-FENWICK']));

    $this->putJson('/api/kpis/Z-LEAK?period=2026-08', [...$kpi, 'name' => 'Half saved', 'units' => $units])
        ->assertStatus(422)->assertJsonPath('errors.0.detail', 'Fenwick has figures of this KPI, so it stays.');
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
