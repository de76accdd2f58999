<?php

declare(strict_types=1);

use App\Organisation\Organisation;
use Illuminate\Support\Facades\DB;
use Tests\World;

beforeEach(function () {
    $this->world();
    $this->being('analyst');
    $this->change = function (string $code, array $to, array $seen) {
        $counts = ['code' => $code, 'weight' => '1', 'rollUp' => 'weighted', 'rollUpGreen' => '1.5', 'rollUpOther' => '0.5'];
        app()->forgetScopedInstances();

        return $this->putJson("/api/units/{$code}", [...$counts, ...$to, 'seen' => [...$counts, ...$seen]]);
    };
    $this->stands = fn (string $name, string $kind = 'department', ?string $parent = 'ORG'): array => ['name' => $name, 'kind' => $kind, 'parent' => $parent];
    $this->tree = function (): array {
        app()->forgetScopedInstances();

        return array_map(fn (array $unit): string => str_repeat('  ', $unit['depth']).$unit['name'], $this->getJson('/api/units')->assertOk()->json());
    };
});

it('shows the tree top down with what hangs on each unit', function () {
    $this->getJson('/api/units')->assertOk()
        ->assertJsonPath('1', ['code' => 'NORTH', 'name' => 'North', 'kind' => 'department', 'parent' => 'ORG', 'weight' => '1', 'rollUp' => 'weighted', 'rollUpGreen' => '1.5', 'rollUpOther' => '0.5', 'retired' => null, 'depth' => 1, 'kpis' => 5, 'people' => 2, 'below' => 1])
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

describe('while months are closed', function () {
    beforeEach(function () {
        // South is red in May and June; what stands below the organisation is closed for May.
        DB::table('targets')->insert(array_map(fn (string $month): array => ['kpi_unit_id' => World::id('FAR', 'SOUTH'), 'period' => $month, 'target' => 50], ['2026-05-01', '2026-06-01']));
        DB::table('readings')->where('kpi_unit_id', World::id('SALES', 'NORTH'))->delete();
        $this->close = function (): void {
            app()->forgetScopedInstances();
            $this->putJson('/api/units/ORG/closing?period=2026-05')->assertOk();
        };
        $this->status = function (string $unit, string $month): string {
            app()->forgetScopedInstances();

            return $this->getJson("/api/units/{$unit}/scorecard?period={$month}&span=month")->assertOk()->json('status');
        };
    });

    it('a move leaves what they said, on scorecard, ribbon and matrix', function () {
        $before = [($this->status)('SOUTH', '2026-05'), ($this->status)('ORG', '2026-05'), ($this->status)('NORTH', '2026-05')];
        ($this->close)();
        ($this->change)('SOUTH', ($this->stands)('South', 'department', 'NORTH'), ($this->stands)('South'))->assertNoContent();
        expect([($this->status)('SOUTH', '2026-05'), ($this->status)('ORG', '2026-05'), ($this->status)('NORTH', '2026-05')])->toBe($before);
        app()->forgetScopedInstances();
        $units = fn (string $month): array => array_column($this->getJson("/api/units/NORTH/scorecard?period={$month}&span=month")->json('units'), 'code');
        expect($units('2026-05'))->toBe(['N1'])->and($units('2026-06'))->toBe(['N1', 'SOUTH']);
        $ribbon = array_column($this->getJson('/api/units/NORTH/ribbon?period=2026-06')->assertOk()->json('months'), 'status', 'period');
        expect([$ribbon['2026-05'], $ribbon['2026-06']])->toBe([$before[2], ($this->status)('NORTH', '2026-06')]);
        $this->getJson('/api/units/NORTH/matrix?period=2026-06&span=month&crossing=units-months')->assertOk();
    });

    it('another weight and another rule hold from the month after', function () {
        ($this->close)();
        $before = ($this->status)('ORG', '2026-05');
        ($this->change)('SOUTH', [...($this->stands)('South'), 'weight' => '100'], ($this->stands)('South'))->assertNoContent();
        expect(($this->status)('ORG', '2026-05'))->toBe($before)->and(($this->status)('ORG', '2026-06'))->toBe('red');
        ($this->change)('SOUTH', ($this->stands)('South'), [...($this->stands)('South'), 'weight' => '100'])->assertNoContent();
        ($this->change)('ORG', [...($this->stands)('Whole', 'organisation', null), 'rollUp' => 'worst'], ($this->stands)('Whole', 'organisation', null))->assertNoContent();
        expect(($this->status)('ORG', '2026-05'))->toBe($before)->and(($this->status)('ORG', '2026-06'))->toBe('red')
            ->and(DB::table('unit_history')->orderBy('id')->pluck('until')->all())->toBe(['2026-05-01', '2026-05-01']);
    });

    it('a unit whose figures are gathered above stays where it is', function () {
        DB::table('kpi_unit')->where('id', World::id('SALES', 'NORTH'))->update(['is_gathered' => true]);
        $north = ($this->stands)('North one', 'zone', 'NORTH');
        ($this->change)('N1', ($this->stands)('North one', 'zone', 'SOUTH'), $north)->assertNoContent();
        ($this->change)('N1', $north, ($this->stands)('North one', 'zone', 'SOUTH'))->assertNoContent();
        ($this->close)();
        ($this->change)('N1', ($this->stands)('North one', 'zone', 'SOUTH'), $north)->assertStatus(422)->assertJsonPath('errors.0.detail', fn (string $words): bool => str_starts_with($words, 'May 2026 is closed, and North gathers Sales'));
    });
});

it('gives a unit another code, and still finds it by the one before', function () {
    ($this->change)('SOUTH', [...($this->stands)('South'), 'code' => 'COAST'], ($this->stands)('South'))->assertNoContent();
    app()->forgetScopedInstances();
    $this->getJson('/api/units/SOUTH/scorecard?period=2026-07&span=month')->assertOk();
    $this->getJson('/api/units/COAST/scorecard?period=2026-07&span=month')->assertOk();
    expect(app(Organisation::class)->byCode('SOUTH')?->code)->toBe('COAST');
    ($this->change)('NORTH', [...($this->stands)('North'), 'code' => 'south'], ($this->stands)('North'))->assertStatus(422)->assertJsonPath('errors.0.pointer', '/code')->assertJsonPath('errors.0.detail', 'South has this code, or had it before.');
    $this->postJson('/api/unit-lists', ['list' => 'Southern (South)', 'below' => 'team'])->assertStatus(422);
    ($this->change)('COAST', [...($this->stands)('South'), 'code' => 'SOUTH'], ($this->stands)('South'))->assertNoContent();
    expect(DB::table('unit_codes')->pluck('code')->all())->toBe(['COAST']);
});

it('puts a unit in another place among those beside it, with what stands below it', function () {
    $order = fn (string $code, ?string $after) => $this->putJson("/api/units/{$code}/order", ['after' => $after]);
    $order('SOUTH', null)->assertNoContent();
    expect(($this->tree)())->toBe(['Whole', '  South', '  North', '    North one']);
    $order('SOUTH', 'NORTH')->assertNoContent();
    expect(($this->tree)())->toBe(['Whole', '  North', '    North one', '  South']);
    $order('SOUTH', 'N1')->assertStatus(422)->assertJsonPath('errors.0.pointer', '/after');
    $order('ORG', null)->assertStatus(422);
});

it('retires a unit from a month on, and brings back what ended with it and nothing else', function () {
    DB::table('kpi_unit')->where('id', World::id('FLOW', 'NORTH'))->update(['measured_to' => '2026-06-01']);
    $ends = fn (): array => DB::table('kpi_unit')->join('kpis', 'kpis.id', '=', 'kpi_id')->join('units', 'units.id', '=', 'unit_id')->whereIn('units.code', ['NORTH', 'N1'])->orderBy('kpis.code')->orderBy('units.code')->selectRaw("measured_to, kpis.code || ' ' || units.code AS place")->pluck('measured_to', 'place')->all();
    $before = $ends();
    $this->putJson('/api/units/NORTH/retirement', ['from' => '2026-09'])->assertNoContent();
    expect($ends())->toBe(['FLOW NORTH' => '2026-06-01', 'MOOD NORTH' => '2026-08-01', 'PH NORTH' => '2026-08-01', 'RATIO NORTH' => '2026-08-01', 'SALES N1' => '2026-08-01', 'SALES NORTH' => '2026-08-01']);
    app()->forgetScopedInstances();
    $this->getJson('/api/units')->assertJsonPath('1.retired', '2026-09')->assertJsonPath('2.retired', '2026-09')->assertJsonPath('3.retired', null);
    $this->putJson('/api/units/NORTH/retirement', ['from' => '2026-10'])->assertStatus(422)->assertJsonPath('errors.0.detail', 'It is retired already.');
    $this->deleteJson('/api/units/NORTH/retirement')->assertNoContent();
    expect($ends())->toBe($before);
    $this->deleteJson('/api/units/NORTH/retirement')->assertNoContent();
    app()->forgetScopedInstances();
    $this->putJson('/api/units/SOUTH/closing?period=2026-07')->assertOk();
    $this->putJson('/api/units/SOUTH/retirement', ['from' => '2026-07'])->assertStatus(422)->assertJsonPath('errors.0.pointer', '/from');
    $this->putJson('/api/units/ORG/retirement', ['from' => '2026-12'])->assertStatus(422);
});

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

it('shows a unit by itself: what is measured there, who answers, how it stood in closed months', function () {
    $this->putJson('/api/units/NORTH/closing?period=2026-06')->assertOk();
    ($this->change)('NORTH', ['code' => 'NOR', ...($this->stands)('North'), 'weight' => '2'], ($this->stands)('North'))->assertNoContent();
    app()->forgetScopedInstances();
    $this->getJson('/api/units/NORTH')->assertOk()->assertJson([
        'code' => 'NOR', 'name' => 'North', 'kind' => 'department', 'formerCodes' => ['NORTH'], 'way' => ['Whole'], 'retired' => null, 'changes' => true, 'shapes' => [],
        'people' => [['name' => 'Head', 'role' => 'Department head', 'through' => null], ['name' => 'Analyst', 'role' => 'Performance analyst', 'through' => 'Whole']],
        'stood' => [['until' => '2026-06', 'below' => 'Whole', 'weight' => '1', 'rollUp' => 'weighted']],
    ])->assertJsonPath('measured.*.code', ['FLOW', 'SALES', 'RATIO', 'MOOD', 'PH'])->assertJsonPath('measured.0.owner', 'Owner');
    // What is an owner's is all that an owner is told of.
    $this->being('owner')->getJson('/api/units/NOR')->assertJsonPath('measured.*.code', ['FLOW', 'MOOD'])->assertJsonPath('changes', false);
});

describe('shapes for a map', function () {
    beforeEach(function () {
        $this->file = fn (array ...$features): string => (string) json_encode(['type' => 'FeatureCollection', 'features' => array_map(fn (array $feature): array => ['type' => 'Feature', 'properties' => $feature[0], 'geometry' => $feature[1]], $features)]);
        // RFC 7946, appendix A.3: a polygon with a hole, its outer ring counterclockwise, its hole clockwise.
        $this->outer = [[100.0, 0.0], [101.0, 0.0], [101.0, 1.0], [100.0, 1.0], [100.0, 0.0]];
        $this->hole = [[100.8, 0.8], [100.8, 0.2], [100.2, 0.2], [100.2, 0.8], [100.8, 0.8]];
        $this->polygon = fn (array ...$rings): array => ['type' => 'Polygon', 'coordinates' => $rings];
    });

    it('find their units by code or name, and are kept as the RFC wants them, whatever way they came', function () {
        $text = ($this->file)(
            [['id' => 7, 'NAME' => 'north'], ($this->polygon)(array_reverse($this->outer), array_reverse($this->hole))],
            [['code' => 'SOUTH'], ['type' => 'MultiPolygon', 'coordinates' => [[$this->outer], [array_reverse($this->hole)]]]],
            [['code' => 'SEA'], ($this->polygon)($this->outer)],
        );
        $this->postJson('/api/unit-shapes/preview', ['text' => $text])->assertOk()->assertExactJson([
            ['names' => ['7', 'north'], 'unit' => 'NORTH', 'points' => 10, 'replaces' => false],
            ['names' => ['SOUTH'], 'unit' => 'SOUTH', 'points' => 10, 'replaces' => false],
            ['names' => ['SEA'], 'unit' => null, 'points' => 5, 'replaces' => false],
        ]);
        expect(DB::table('unit_shapes')->count())->toBe(0);
        $this->postJson('/api/unit-shapes', ['text' => $text, 'units' => ['NORTH', 'SOUTH', null]])->assertCreated()->assertJsonPath('units', 2);
        $shapes = $this->getJson('/api/units/NORTH')->json('shapes');
        expect(array_column($shapes, 'code'))->toBe(['NORTH', 'SOUTH'])->and(json_decode($shapes[0]['shape'], true)['coordinates'])->toEqual([$this->outer, $this->hole]);
        app()->forgetScopedInstances();
        // The organisation has none of its own, so those below it are its map; a head sees what is theirs.
        expect(array_column($this->getJson('/api/units/ORG')->json('shapes'), 'code'))->toBe(['NORTH', 'SOUTH']);
        app()->forgetScopedInstances();
        expect(array_column($this->being('head')->getJson('/api/units/NORTH')->json('shapes'), 'code'))->toBe(['NORTH']);
        app()->forgetScopedInstances();
        $this->being('analyst')->postJson('/api/unit-shapes/preview', ['text' => $text])->assertJsonPath('0.replaces', true);
        $this->deleteJson('/api/units/NORTH/shape')->assertNoContent();
        $this->getJson('/api/changes?subject=unit')->assertJsonPath('changes.0.what', 'shape on the map')->assertJsonPath('changes.0.how', 'removed');
    });

    it('are refused with what is wrong', function (Closure $file, string $problem) {
        expect($this->postJson('/api/unit-shapes', ['text' => $file->call($this), 'units' => []])->assertStatus(422)->json('errors.0.detail'))->toContain($problem);
    })->with([
        'no JSON' => [fn () => 'hello', 'no GeoJSON'],
        'another kind' => [fn () => '{"type":"Topology"}', 'no GeoJSON'],
        'a line' => [fn () => ($this->file)([[], ['type' => 'LineString', 'coordinates' => $this->outer]]), 'no Polygon'],
        'an open ring' => [fn () => ($this->file)([[], ($this->polygon)(array_slice($this->outer, 0, 4))]), 'does not end where it began'],
        'a short ring' => [fn () => ($this->file)([[], ($this->polygon)([[0, 0], [1, 1], [0, 0]])]), 'fewer than four'],
        'metres' => [fn () => ($this->file)([[], ($this->polygon)([[500000, 200000], [500001, 200000], [500001, 200001], [500000, 200000]])]), 'no degrees'],
        'words' => [fn () => ($this->file)([[], ($this->polygon)([['a', 0], [1, 1], [1, 0], ['a', 0]])]), 'no degrees'],
        'no ring' => [fn () => ($this->file)([[], ['type' => 'Polygon', 'coordinates' => []]]), 'without a ring'],
    ]);

    it('go to one unit each', function () {
        $text = ($this->file)([[], ($this->polygon)($this->outer)], [[], ($this->polygon)($this->outer)]);
        $this->postJson('/api/unit-shapes', ['text' => $text, 'units' => ['NORTH', 'NORTH']])->assertStatus(422)->assertJsonPath('errors.0.detail', 'Two regions are the same unit.');
    });
});
