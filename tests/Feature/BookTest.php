<?php

declare(strict_types=1);

use App\Models\User;
use App\Tables\Table;
use Illuminate\Http\UploadedFile;
use Illuminate\Support\Facades\DB;
use PhpOffice\PhpSpreadsheet\IOFactory;
use PhpOffice\PhpSpreadsheet\Spreadsheet;
use Tests\World;

/* An organisation as one workbook, with a sheet for each kind of thing. */

beforeEach(function () {
    $this->world();
    $this->being('analyst');
    /** The workbook as it goes out, and how it is written again. */
    $this->take = function (string $query = ''): string {
        $path = tempnam(sys_get_temp_dir(), 'book');
        file_put_contents($path, $this->get("/api/book{$query}")->assertOk()->streamedContent());
        app()->forgetScopedInstances();

        return $path;
    };
    $this->send = fn (string $path) => $this->postJson('/api/book', ['file' => new UploadedFile($path, 'book.xlsx', null, null, true)]);
    $this->apply = fn (string $upload) => $this->postJson("/api/book/{$upload}")->assertOk();
    $this->counts = fn ($answer): array => array_map(fn (array $sheet): string => "{$sheet['name']} {$sheet['new']} {$sheet['changed']} {$sheet['same']} {$sheet['refused']}", $answer->json('sheets'));
});

/** @param  array<string, list<list<string|int|float>>>  $sheets */
function book(array $sheets): string
{
    $book = new Spreadsheet;
    $book->removeSheetByIndex(0);
    foreach ($sheets as $name => $rows) {
        $book->createSheet()->setTitle($name)->fromArray($rows, null, 'A1', true);
    }
    $path = (string) tempnam(sys_get_temp_dir(), 'book');
    IOFactory::createWriter($book, 'Xlsx')->save($path);

    return $path;
}

it('goes out filled, and comes back as nothing new', function () {
    $path = ($this->take)();
    expect(Table::open($path)->sheets())->toBe(['Read me', 'Units', 'People', 'Definitions', 'Targets', 'Figures']);
    $before = DB::table('audit_entries')->count();
    $answer = ($this->send)($path)->assertOk()->assertJsonPath('applied', false);
    expect(($this->counts)($answer))->toBe(['Units 0 0 4 0', 'People 0 0 18 0', 'Definitions 0 0 6 0', 'Targets 0 0 4 0', 'Figures 0 0 12 0'])->and(DB::table('audit_entries')->count())->toBe($before);
});

it('goes out empty, with what stands in each sheet', function () {
    $path = ($this->take)('?empty=1');
    expect(iterator_to_array(Table::open($path, 'Units')->rows()))->toBe([1 => ['Code', 'Name', 'What it is', 'Belongs to', 'Weight']])
        ->and(implode(' ', array_merge(...array_map(fn (array $row): array => array_filter($row, is_string(...)), iterator_to_array(Table::open($path)->rows())))))->toContain('A line for each role of each person');
    ($this->send)($path)->assertStatus(422)->assertJsonPath('errors.0.detail', 'The file has none of the sheets, or nothing in them. Take the empty workbook and fill it in.');
});

it('takes targets of years where people may set them, and nowhere else', function () {
    $path = book(['Targets' => [['KPI', 'Unit', 'Period', 'Target', 'Upper end'], ['FLOW', 'NORTH', 'FY2026', 140, ''], ['MOOD', 'NORTH', 'FY2026', 2, ''], ['FLOW', 'NORTH', 'FY26', 1, '']]]);
    $sheet = ($this->send)($path)->assertOk()->json('sheets.0');
    expect([$sheet['new'], $sheet['refused']])->toBe([1, 2])->and(array_map(fn (string $problem): string => substr($problem, 0, 7), $sheet['problems']))->toBe(['Line 3:', 'Line 4:']);
});

it('is shown before it is kept: what is new in one sheet is known to the next', function () {
    $path = book([
        'Figures' => [['KPI', 'Unit', 'Period', 'Actual', 'Reason'], ['DAYS', 'QUAY', '2026-07', 12.5, 'Flood'], ['FLOW', 'NORTH', '2026-07', 14, ''], ['FLOW', 'NORTH', '2026-06', '12', '']],
        'Units' => [['Code', 'Name', 'What it is', 'Belongs to', 'Weight'], ['EAST', 'East', 'department', 'ORG', 2], ['QUAY', 'Quay', 'team', 'EAST', ''], ['SOUTH', 'Southern', 'department', 'ORG', 1]],
        'People' => [['Name', 'E-mail', 'Role', 'Unit'], ['Holt, Nia', 'nia@x.example', 'department head', 'EAST']],
        'Definitions' => [['code', 'name', 'measure', 'polarity', 'accumulation', 'units', 'ruleFrom', 'ruleReference', 'ruleMeasure', 'ruleGreen', 'ruleAmber'], ['DAYS', 'Days', 'd', 'lower', 'mean', 'QUAY', '2025-01', 'target', 'percent', '0', '5']],
        'Targets' => [['KPI', 'Unit', 'Period', 'Target', 'Upper end'], ['DAYS', 'QUAY', '2026-07', 12, ''], ['DAYS', 'QUAY', 'FY2026', 140, '']],
    ]);
    $preview = ($this->send)($path)->assertOk();
    expect(($this->counts)($preview))->toBe(['Units 2 1 0 0', 'People 1 0 0 0', 'Definitions 1 0 0 0', 'Targets 2 0 0 0', 'Figures 1 1 1 0'])
        ->and(DB::table('units')->where('code', 'EAST')->exists())->toBeFalse()->and(User::query()->where('email', 'nia@x.example')->exists())->toBeFalse()
        ->and($preview->json('sheets.1.links'))->toBe([]);

    $done = ($this->apply)($preview->json('upload'))->assertJsonPath('applied', true);
    expect($done->json('sheets.1.links.0'))->toContain('nia@x.example http')->toContain('/enter#')
        ->and(DB::table('units')->where('code', 'SOUTH')->value('name'))->toBe('Southern')->and(User::query()->where('email', 'nia@x.example')->value('name'))->toBe('Holt, Nia')
        ->and(DB::table('readings')->where('kpi_unit_id', World::id('DAYS', 'QUAY'))->value('actual'))->toBe('12.50000000')
        ->and(DB::table('notes')->where('kpi_unit_id', World::id('DAYS', 'QUAY'))->value('text'))->toBe('Flood')
        ->and(DB::table('year_targets')->where('kpi_unit_id', World::id('DAYS', 'QUAY'))->value('target'))->toBe('140.00000000');
    $this->postJson("/api/book/{$preview->json('upload')}")->assertNotFound();
    app()->forgetScopedInstances();
    expect(($this->counts)(($this->send)($path)->assertOk()))->toBe(['Units 0 0 3 0', 'People 0 0 1 0', 'Definitions 0 0 1 0', 'Targets 0 0 2 0', 'Figures 0 0 3 0']);
});

it('keeps nothing of a workbook of which something is refused, and says of each line why', function () {
    $path = book([
        'Units' => [['Code', 'Name', 'What it is', 'Belongs to', 'Weight'], ['EAST', 'East', 'department', 'ORG', 1], ['1X', 'Odd', '', '', ''], ['DEEP', 'Deep', '', 'NOWHERE', '']],
        'People' => [['Name', 'E-mail', 'Role', 'Unit'], ['Nia', 'nia', 'reader', 'ORG']],
        'Definitions' => [['code', 'name', 'units'], ['NEW', 'New', 'NOWHERE']],
        'Figures' => [['KPI', 'Unit', 'Period', 'Actual', 'Reason'], ['FLOW', 'NORTH', '2026-07', 'much', ''], ['FLOW', 'NORTH', '2026-06', 1001, ''], ['RATIO', 'NORTH', '2026-06', 1, ''], ['NONE', 'NORTH', '2026-06', 1, ''], ['FLOW', 'NORTH', '2026-06', 3, '']],
    ]);
    $preview = ($this->send)($path)->assertOk();
    $problems = array_merge(...array_column($preview->json('sheets'), 'problems'));
    expect(($this->counts)($preview))->toBe(['Units 1 0 0 2', 'People 0 0 0 1', 'Definitions 0 0 0 1', 'Figures 0 0 0 5'])
        ->and(implode("\n", $problems))->toContain('Line 3: A code starts')->toContain('There is no unit NOWHERE above it')->toContain('is not a number')->toContain('There is no KPI NONE in NORTH')->toContain('twice');
    ($this->apply)($preview->json('upload'))->assertJsonPath('applied', false);
    expect(DB::table('units')->where('code', 'EAST')->exists())->toBeFalse();
});

it('is for whoever administers and sees every figure', function () {
    foreach (['administrator', 'executive', 'head'] as $role) {
        $this->being($role)->getJson('/api/book')->assertForbidden();
    }
});
