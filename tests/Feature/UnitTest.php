<?php

declare(strict_types=1);

use App\Organisation\Organisation;
use Illuminate\Support\Facades\DB;

beforeEach(function () {
    $this->world();
    $this->being('analyst');
    $this->change = fn (string $code, array $to, array $seen) => $this->putJson("/api/units/{$code}", [...$to, 'seen' => $seen]);
    $this->stands = fn (string $name, string $kind = 'department', ?string $parent = 'ORG'): array => ['name' => $name, 'kind' => $kind, 'parent' => $parent];
    $this->tree = function (): array {
        app()->forgetScopedInstances();

        return array_map(fn (array $unit): string => str_repeat('  ', $unit['depth']).$unit['name'], $this->getJson('/api/units')->assertOk()->json());
    };
});

it('shows the tree top down with what hangs on each unit', function () {
    $this->getJson('/api/units')->assertOk()
        ->assertJsonPath('1', ['code' => 'NORTH', 'name' => 'North', 'kind' => 'department', 'parent' => 'ORG', 'depth' => 1, 'kpis' => 5, 'people' => 2, 'below' => 1])
        ->assertJsonPath('2.depth', 2);
});

it('lets a unit be called and stand otherwise, and back, told in the trail', function () {
    [$north, $south] = [($this->stands)('North one', 'zone', 'NORTH'), ($this->stands)('Marsh', 'site', 'SOUTH')];
    ($this->change)('N1', ['name' => ' Marsh ', 'kind' => 'Site', 'parent' => 'SOUTH'], $north)->assertNoContent();
    expect(($this->tree)())->toBe(['Whole', '  North', '  South', '    Marsh']);
    $this->getJson('/api/changes?subject=unit')->assertJsonPath('changes.0.fields.0', ['field' => 'name', 'before' => 'North one', 'after' => 'Marsh']);
    // The same once more, from an answer that was lost.
    ($this->change)('N1', $south, $north)->assertNoContent();
    ($this->change)('N1', $north, $south)->assertNoContent();
    expect(($this->tree)())->toBe(['Whole', '  North', '    North one', '  South'])->and(DB::table('audit_entries')->where('subject', 'units')->count())->toBe(2);
});

it('puts a unit that is made later behind those beside it, not at the end of the tree', function () {
    $this->postJson('/api/unit-lists', ['list' => "North\n  Ford", 'below' => 'zone'])->assertCreated();
    expect(($this->tree)())->toBe(['Whole', '  North', '    North one', '    Ford', '  South']);
});

it('keeps what is moved above what is its own, in the workbook too', function () {
    ($this->change)('NORTH', ($this->stands)('North', 'department', 'SOUTH'), ($this->stands)('North'))->assertNoContent();
    expect(($this->tree)())->toBe(['Whole', '  South', '    North', '      North one']);
    app()->forgetScopedInstances();
    expect(array_keys(app(Organisation::class)->parents()))->toBe(['ORG', 'SOUTH', 'NORTH', 'N1']);
});

it('overwrites nothing that somebody else changed since it was seen', function () {
    DB::table('units')->where('code', 'SOUTH')->update(['name' => 'Coast']);
    ($this->change)('SOUTH', ($this->stands)('Southern'), ($this->stands)('South'))->assertStatus(409)->assertJsonPath('detail', fn (string $words): bool => str_contains($words, 'it is Coast, department, below ORG'));
    expect(DB::table('units')->where('code', 'SOUTH')->value('name'))->toBe('Coast');
});

it('refuses what cannot be, beside the field', function (string $code, array $change, string $pointer, string $words) {
    $seen = ($this->stands)(...['ORG' => ['Whole', 'organisation', null], 'NORTH' => ['North'], 'N1' => ['North one', 'zone', 'NORTH']][$code]);
    $answer = ($this->change)($code, [...$seen, ...$change], $seen)->assertStatus(422)->assertJsonPath('errors.0.pointer', $pointer);
    expect($answer->json('errors.0.detail'))->toContain($words);
})->with([
    'no name' => ['N1', ['name' => ' '], '/name', 'called'],
    'no kind' => ['N1', ['kind' => ''], '/kind', 'what it is'],
    'below itself' => ['NORTH', ['parent' => 'NORTH'], '/parent', 'below itself'],
    'below what is its own' => ['NORTH', ['parent' => 'N1'], '/parent', 'North one is part of North'],
    'below what is not there' => ['N1', ['parent' => 'WEST'], '/parent', 'no such unit'],
    'the organisation below something' => ['ORG', ['parent' => 'SOUTH'], '/parent', 'above everything'],
    'below nothing' => ['N1', ['parent' => null], '/parent', 'no such unit'],
]);

it('moves nothing whose old or new place has a closed month, and still lets it be called otherwise', function (string $closed, bool $mayMove) {
    DB::table('period_states')->insert(['unit_id' => app(Organisation::class)->byCode($closed)?->id, 'period' => '2026-05-01']);
    $north = ($this->stands)('North one', 'zone', 'NORTH');
    ($this->change)('N1', ($this->stands)('Marsh', 'zone', 'NORTH'), $north)->assertNoContent();
    $answer = ($this->change)('N1', ($this->stands)('Marsh', 'zone', 'SOUTH'), ($this->stands)('Marsh', 'zone', 'NORTH'));
    $mayMove ? $answer->assertNoContent() : $answer->assertStatus(422)->assertJsonPath('errors.0.pointer', '/parent')->assertJsonPath('errors.0.detail', fn (string $words): bool => str_starts_with($words, 'May 2026 is closed for '));
})->with(['where it stands' => ['NORTH', false], 'where it goes' => ['SOUTH', false], 'above both' => ['ORG', false], 'itself alone' => ['N1', true]]);

it('takes away a unit on which nothing hangs, and no other', function () {
    foreach (['ORG' => 'the organisation itself', 'NORTH' => 'North has KPIs', 'SOUTH' => 'South has KPIs'] as $code => $words) {
        $this->deleteJson("/api/units/{$code}")->assertStatus(422)->assertJsonPath('errors.0.detail', fn (string $told): bool => str_contains($told, $words));
    }
    $batch = $this->postJson('/api/unit-lists', ['list' => "Harbour (HB)\n  Quay (QY)", 'below' => 'site'])->json('batch');
    app()->forgetScopedInstances();
    $this->deleteJson('/api/units/HB')->assertStatus(422)->assertJsonPath('errors.0.detail', 'Quay stands below, so it stays.');
    DB::table('kpis')->where('code', 'FAR')->update(['department_id' => DB::table('units')->where('code', 'QY')->value('id')]);
    $this->deleteJson('/api/units/QY')->assertStatus(422)->assertJsonPath('errors.0.detail', 'Quay has KPIs that it answers for, so it stays.');
    $this->deleteJson("/api/unit-lists/{$batch}")->assertStatus(422);
    DB::table('kpis')->where('code', 'FAR')->update(['department_id' => DB::table('units')->where('code', 'SOUTH')->value('id')]);
    $this->deleteJson('/api/units/QY')->assertNoContent();
    $this->deleteJson('/api/units/HB')->assertNoContent();
    $this->deleteJson('/api/units/HB')->assertNotFound();
    expect(($this->tree)())->toBe(['Whole', '  North', '    North one', '  South']);
});

it('says so where something is put into a unit while it is taken away', function () {
    $this->postJson('/api/unit-lists', ['list' => 'Harbour (HB)', 'below' => 'site'])->assertCreated();
    app()->forgetScopedInstances();
    // What comes between the look and the deletion: here a row that the look does not know.
    DB::statement('CREATE TABLE late (unit_id bigint REFERENCES units)');
    DB::statement("INSERT INTO late SELECT id FROM units WHERE code = 'HB'");
    $this->deleteJson('/api/units/HB')->assertStatus(422)->assertJsonPath('errors.0.detail', 'Something was put there just now, so it stays.');
    expect(DB::table('units')->where('code', 'HB')->exists())->toBeTrue();
});

it('reads two thousand units without a query for each', function () {
    $root = DB::table('units')->whereNull('parent_id')->value('id');
    DB::table('units')->insert(array_map(fn (int $at): array => ['code' => "X{$at}", 'name' => "Unit {$at}", 'kind' => 'site', 'parent_id' => $root, 'position' => $at], range(10, 2009)));
    app()->forgetScopedInstances();
    DB::enableQueryLog();
    expect($this->getJson('/api/units')->json())->toHaveCount(2004)->and(count(DB::getQueryLog()))->toBeLessThan(9);
});
