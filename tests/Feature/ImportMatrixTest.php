<?php

declare(strict_types=1);

use Illuminate\Http\UploadedFile;
use Illuminate\Support\Facades\DB;
use Tests\World;

/*
 * What a file may look like, whoever sends it: read, previewed, applied, applied again, undone.
 */

beforeEach(function () {
    $this->world();
    $this->preview = function (string $role, string $file): array {
        $sent = $this->being($role)->postJson('/api/units/'.World::PEOPLE[$role].'/imports', ['file' => UploadedFile::fake()->createWithContent('figures.csv', $file)])->assertCreated()->json();
        $this->putJson("/api/imports/{$sent['id']}/mapping", ['roles' => array_column($sent['columns'], 'role')])->assertStatus(202);

        return $this->getJson("/api/imports/{$sent['id']}")->assertOk()->json();
    };
    $this->kept = fn (): array => array_map(fn (string $table): array => DB::table($table)->orderBy('kpi_unit_id')->orderBy(...$table === 'year_targets' ? ['year'] : ['period'])->get()->map(
        fn (object $row): array => array_diff_key((array) $row, array_flip(['id', 'version', 'created_at', 'updated_at', 'entered_by', 'author_id', 'state'])),
    )->all(), ['readings', 'targets', 'year_targets', 'notes']);
});

it('reads, previews, applies once and undoes', function (string $role, string $file, array $counts, string $refusal) {
    $before = ($this->kept)();
    $page = ($this->preview)($role, $file);

    expect(array_values($page['counts']))->toBe($counts)
        ->and(implode(' ', array_column($page['cells'], 'reason')))->toContain($refusal)
        // Looking changes nothing.
        ->and(($this->kept)())->toEqual($before);
    if ($counts[0] + $counts[1] === 0) {
        return;
    }
    $this->postJson("/api/imports/{$page['id']}/application")->assertStatus(202);
    $applied = ($this->kept)();
    expect($applied)->not->toEqual($before);
    // The same file again finds everything there.
    $again = ($this->preview)($role, $file);
    expect($again['counts'])->toMatchArray(['new' => 0, 'changed' => 0, 'same' => $counts[0] + $counts[1] + $counts[2]]);
    $this->deleteJson("/api/imports/{$page['id']}/application")->assertStatus(202);
    // An undone figure leaves its row, with nothing in it: versions are never used twice.
    $plain = fn (array $kept): array => array_map(fn (array $rows): array => array_values(array_filter($rows, fn (array $row): bool => ($row['actual'] ?? $row['colour'] ?? $row['target'] ?? $row['low'] ?? $row['text'] ?? null) !== null)), $kept);
    expect($plain(($this->kept)()))->toEqual($plain($before));
})->with([
    'a row a figure' => ['analyst', "KPI,Unit,Period,Actual\nFLOW,NORTH,2026-08,9.5\nFLOW,NORTH,2026-07,13\nFLOW,NORTH,2026-06,12.5\n", [1, 1, 1, 0], ''],
    'names for codes, months in words' => ['analyst', "KPI;Unit;Month;Actual\nFlow;North;August 2026;9.5\nSales;North one;Jul 2026;1,200.25\n", [2, 0, 0, 0], ''],
    'months across' => ['analyst', "KPI,Unit,2026-06,2026-07,2026-08\nFLOW,NORTH,12,13.5,9\nSALES,N1,,7,8\n", [3, 1, 1, 0], ''],
    'targets, of a month and of the year' => ['analyst', "KPI,Unit,Period,Target\nFLOW,NORTH,2026-08,12\nFLOW,NORTH,FY2026,12\nFLOW,NORTH,2026-07,12\n", [2, 0, 1, 0], ''],
    'bands' => ['analyst', "KPI,Unit,Period,Low,High\nPH,NORTH,2026-07,6.5,8.5\nPH,NORTH,2026-08,8.5,6.5\n", [1, 0, 0, 1], 'The upper figure must be 8.5 or more.'],
    'colours with their reasons' => ['analyst', "KPI,Unit,Period,Actual,Note\nMOOD,NORTH,2026-07,amber,Somebody waited\nMOOD,NORTH,2026-08,red,\nMOOD,NORTH,2026-06,blue,Why\n", [3, 0, 0, 2], 'A colour needs its reason'],
    'layers in a column' => ['analyst', "KPI,Unit,Layer,2026-07,2026-08\nFLOW,NORTH,actual,13,9\nFLOW,NORTH,target,12,12\n", [2, 0, 2, 0], ''],
    'what is worked out' => ['analyst', "KPI,Unit,Period,Actual\nRATIO,NORTH,2026-07,0.13\n", [0, 0, 0, 1], 'worked out: FLOW / SALES'],
    'out of bounds' => ['analyst', "KPI,Unit,Period,Actual\nFLOW,NORTH,2026-08,-1\nFLOW,NORTH,2026-07,1000.1\nFLOW,NORTH,2026-06,1000\n", [0, 1, 0, 2], 'The figure cannot be above 1000.'],
    'months to come' => ['analyst', "KPI,Unit,Period,Actual\nFLOW,NORTH,2026-09,1\n", [0, 0, 0, 1], 'September 2026 has not begun yet.'],
    'no number, no KPI, no unit' => ['analyst', "KPI,Unit,Period,Actual\nFLOW,NORTH,2026-08,abc\nNONE,NORTH,2026-08,1\nFLOW,NOWHERE,2026-08,1\nFLOW,SOUTH,2026-08,1\n", [0, 0, 0, 4], "no KPI 'NONE'"],
    'a cell twice' => ['analyst', "KPI,Unit,Period,Actual\nFLOW,NORTH,2026-08,1\nFLOW,NORTH,2026-08,2\n", [1, 0, 0, 1], 'It stands in line 2 already.'],
    'an owner, what is theirs alone' => ['owner', "KPI,Unit,Period,Actual\nFLOW,NORTH,2026-08,9\nSALES,NORTH,2026-08,90\nFAR,SOUTH,2026-08,4\n", [1, 0, 0, 2], ''],
    'an owner plans no targets' => ['owner', "KPI,Unit,Period,Target\nFLOW,NORTH,2026-08,12\n", [0, 0, 0, 1], 'targets are planned by the analyst'],
    'a head, the whole department' => ['head', "KPI,Unit,Period,Actual\nSALES,NORTH,2026-08,90\nSALES,N1,2026-08,40\nFAR,SOUTH,2026-08,4\n", [2, 0, 0, 1], ''],
    'a byte order mark, blank lines and spaces' => ['analyst', "\u{FEFF}KPI,Unit,Period,Actual\n\n FLOW , NORTH , 2026-08 , 9 \n\n", [1, 0, 0, 0], ''],
    'blanks leave what stands there' => ['analyst', "KPI,Unit,Period,Actual\nFLOW,NORTH,2026-07,\nFLOW,NORTH,2026-08,9\n", [1, 0, 0, 0], ''],
]);

it('takes nothing of a month that is closed, and does not mind what is the same', function () {
    $this->being('analyst')->putJson('/api/units/NORTH/closing?period=2026-06')->assertOk();
    $page = ($this->preview)('analyst', "KPI,Unit,Period,Actual\nFLOW,NORTH,2026-06,12\nSALES,NORTH,2026-06,99\nFAR,SOUTH,2026-06,6\n");

    expect(array_values($page['counts']))->toBe([0, 1, 1, 1])
        ->and(implode(' ', array_column($page['cells'], 'reason')))->toContain('June 2026 is closed. It can change only after it is reopened.');
});

it('does not undo what somebody has changed since', function () {
    $page = ($this->preview)('analyst', "KPI,Unit,Period,Actual\nFLOW,NORTH,2026-08,9\nFLOW,NORTH,2026-07,14\n");
    $this->postJson("/api/imports/{$page['id']}/application")->assertStatus(202);
    $this->being('owner')->putJson('/api/measurements/'.World::id('FLOW', 'NORTH').'/readings/2026-07', ['typed' => '15', 'version' => 2])->assertOk();
    $this->being('analyst')->deleteJson("/api/imports/{$page['id']}/application")->assertStatus(202);

    expect(DB::table('readings')->where('kpi_unit_id', World::id('FLOW', 'NORTH'))->whereIn('period', ['2026-07-01', '2026-08-01'])->orderBy('period')->pluck('actual')->all())->toBe(['15.00000000', null]);
});
