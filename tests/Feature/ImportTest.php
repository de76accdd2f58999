<?php

declare(strict_types=1);

use App\Models\Reading;
use App\Tables\BadTable;
use App\Tables\Bounds;
use App\Tables\NumberCell;
use App\Tables\Table;
use Carbon\CarbonImmutable;
use Illuminate\Http\UploadedFile;
use Illuminate\Support\Facades\DB;
use PhpOffice\PhpSpreadsheet\IOFactory;
use PhpOffice\PhpSpreadsheet\Spreadsheet;

beforeEach(function () {
    CarbonImmutable::setTestNow('2026-09-08');
    $this->send = fn (string $content, string $name = 'figures.csv', string $unit = 'NET') => $this->postJson("/api/units/{$unit}/imports", ['file' => UploadedFile::fake()->createWithContent($name, $content)]);
    /** Sends, reads as it was understood, and gives the preview. */
    $this->preview = function (string $content, string $name = 'figures.csv', string $unit = 'NET'): array {
        $sent = ($this->send)($content, $name, $unit)->assertCreated()->json();
        $this->putJson("/api/imports/{$sent['id']}/mapping", ['roles' => array_column($sent['columns'], 'role')])->assertStatus(202);

        return $this->getJson("/api/imports/{$sent['id']}")->assertOk()->json();
    };
});

afterEach(fn () => CarbonImmutable::setTestNow());

/** @param  list<list<mixed>>  $rows */
function spreadsheet(string $format, array $rows, ?Closure $shape = null): string
{
    $book = new Spreadsheet;
    $book->getActiveSheet()->fromArray($rows, null, 'A1', true);
    if ($shape !== null) {
        $shape($book->getActiveSheet());
    }
    $path = tempnam(sys_get_temp_dir(), 'book');
    IOFactory::createWriter($book, $format)->save($path);

    return $path;
}

it('understands columns, previews cell by cell, applies as a whole and undoes as a whole', function () {
    $this->as('owner');
    $before = DB::table('readings')->orderBy('id')->get(['kpi_unit_id', 'period', 'actual'])->toJson();
    $page = ($this->preview)("KPI;Unit;Month;Actual;Note\nNIGHT;NET;Aug 2026;1.81;Meter swapped\nleakage;Network;31.08.2026;64.9;\nLEAK;NET;2026-06;60;\nVALVES;NET;08/2026;6x0;\nNOPE;NET;2026-08;3;\nValves exercised;NET;2026-07;735;\nVALVES;NET;2026-07;736;\nFLOODING;WST;2026-08;3;\n");

    expect($page['state'])->toBe('ready')->and($page['counts'])->toBe(['new' => 2, 'changed' => 1, 'same' => 1, 'refused' => 5]);
    $reasons = array_column(array_filter($page['cells'], fn (array $cell): bool => $cell['outcome'] === 'refused'), 'reason', 'line');
    expect($reasons[4])->toBe('June 2026 is closed. It can change only after it is reopened.')->and($reasons[5])->toContain("'6x0' is not a number")->and($reasons[6])->toContain("no KPI 'NOPE'")
        ->and($reasons[8])->toBe('It stands in line 7 already.')->and($reasons[9])->toContain('FLOODING')
        ->and(DB::table('readings')->orderBy('id')->get(['kpi_unit_id', 'period', 'actual'])->toJson())->toBe($before);

    $this->postJson("/api/imports/{$page['id']}/application")->assertStatus(202);
    $night = fn () => Reading::query()->where('kpi_unit_id', self::measured('NIGHT', 'NET')->id)->where('period', '2026-08-01')->first();
    expect($this->getJson("/api/imports/{$page['id']}")->json('state'))->toBe('applied')->and($night()->actual)->toBe('1.81000000');

    // What somebody changed after the import stays when it is undone.
    $this->putJson('/api/measured/'.self::measured('VALVES', 'NET')->id.'/readings/2026-07', ['typed' => '800', 'version' => 2])->assertOk();
    $this->deleteJson("/api/imports/{$page['id']}/application")->assertStatus(202);
    expect($this->getJson("/api/imports/{$page['id']}")->json('state'))->toBe('undone')->and($night()->actual)->toBeNull()
        ->and(DB::table('notes')->where('kpi_unit_id', self::measured('NIGHT', 'NET')->id)->where('period', '2026-08-01')->exists())->toBeFalse()
        ->and(Reading::query()->where('kpi_unit_id', self::measured('VALVES', 'NET')->id)->where('period', '2026-07-01')->value('actual'))->toBe('800.00000000');
    // Asked twice is asked once; what is undone cannot be applied.
    $this->deleteJson("/api/imports/{$page['id']}/application")->assertStatus(202)->assertJsonPath('state', 'undone');
    $this->postJson("/api/imports/{$page['id']}/application")->assertStatus(422);
});

it('leaves what was changed between preview and apply, and all of it where a month was closed', function () {
    $page = $this->as('analyst') ? ($this->preview)("kpi,unit,period,actual,target\nNIGHT,NET,2026-08,1.8,1.7\nLEAK,NET,2026-08,60,56\n") : [];
    $this->putJson('/api/measured/'.self::measured('LEAK', 'NET')->id.'/readings/2026-08', ['typed' => '63', 'version' => 1])->assertOk();
    DB::table('period_states')->insert(['unit_id' => self::measured('LEAK', 'NET')->unit_id, 'period' => '2026-08-01']);
    $this->postJson("/api/imports/{$page['id']}/application")->assertStatus(202);
    expect($this->getJson("/api/imports/{$page['id']}")->json())->state->toBe('ready')->problem->toContain('was closed in the meantime');

    DB::table('period_states')->where('period', '2026-08-01')->delete();
    $this->postJson("/api/imports/{$page['id']}/application")->assertStatus(202);
    $after = $this->getJson("/api/imports/{$page['id']}?outcome=refused")->json();
    expect($after['state'])->toBe('applied')->and($after['cells'][0]['reason'])->toBe('Somebody changed this since the preview.')
        ->and(Reading::query()->where('kpi_unit_id', self::measured('LEAK', 'NET')->id)->where('period', '2026-08-01')->value('actual'))->toBe('63.00000000');
});

it('reads what it exports unchanged, long and wide, in every format', function (string $format) {
    $this->as('analyst');
    $exported = $this->get("/api/units/OST/figures?period=2026-08&format={$format}")->assertOk()->streamedContent();
    $page = ($this->preview)($exported, "figures.{$format}", 'OST');
    $refused = DB::table('import_cells')->where('import_id', $page['id'])->where('outcome', 'refused')->pluck('reason')->unique()->values()->all();

    // Closed months and worked-out figures take nothing, even what is there; all else is the same.
    expect($page['counts'])->new->toBe(0)->changed->toBe(0)->same->toBeGreaterThan(300)
        ->and(array_filter($refused, fn (string $reason): bool => ! str_contains($reason, 'is closed') && ! str_contains($reason, 'takes no such entry')))->toBe([]);
})->with(['csv', 'xlsx', 'ods', 'csv-long', 'xlsx-long', 'ods-long']);

it('reads spreadsheets as a kept library writes them: numbers, percentages, dates, gaps', function (string $format) {
    $path = spreadsheet($format, [['kpi', 'unit', 'period', 'actual'], ['A', null, null, 12.1], ['B', 'x', null, 0.945], ['=1', 'ü & <b>', null, '007']], function ($sheet): void {
        $sheet->setCellValue('C2', PhpOffice\PhpSpreadsheet\Shared\Date::PHPToExcel(new DateTimeImmutable('2026-08-01')));
        $sheet->getStyle('C2')->getNumberFormat()->setFormatCode('yyyy-mm-dd');
        $sheet->getStyle('D3')->getNumberFormat()->setFormatCode('0.0%');
        $sheet->setCellValueExplicit('A4', '=1', PhpOffice\PhpSpreadsheet\Cell\DataType::TYPE_STRING);
    });
    $rows = array_map(fn (array $row): array => array_map(fn ($cell): string => $cell instanceof NumberCell ? "#{$cell->text}" : $cell, $row), iterator_to_array(Table::open($path)->rows()));

    expect($rows)->toBe([1 => ['kpi', 'unit', 'period', 'actual'], 2 => ['A', '', '2026-08-01', '#12.1'], 3 => ['B', 'x', '', '#94.5'], 4 => ['=1', 'ü & <b>', '', '007']]);
})->with(['Xlsx', 'Ods']);

it('refuses what is no table, with a sentence', function (Closure $content, string $words) {
    $this->as('owner');
    ($this->send)($content(), 'figures.xlsx')->assertStatus(422)->assertJsonPath('errors.0.detail', fn (string $detail): bool => str_contains($detail, $words));
})->with([
    'nothing' => [fn () => '', 'empty'],
    'encrypted' => [fn () => "\xD0\xCF\x11\xE0\xA1\xB1\x1A\xE1".str_repeat('x', 600), 'password'],
    'a PDF' => [fn () => "%PDF-1.7\n", 'PDF'],
    'bytes' => [fn () => "\x7FELF\0\0\0", 'neither text nor a spreadsheet'],
    'UTF-16' => [fn () => "\xFF\xFEk\0p\0i\0", 'UTF-16'],
    'bytes of no text' => [fn () => "kpi,unit\nZ\x81rich\xFC,1\n", 'neither in UTF-8 nor in Windows-1252'],
    'an archive of something else' => [function () {
        $zip = new ZipArchive;
        $zip->open($path = tempnam(sys_get_temp_dir(), 'zip'), ZipArchive::OVERWRITE);
        $zip->addFromString('a.txt', 'a');
        $zip->close();

        return (string) file_get_contents($path);
    }, 'neither XLSX nor ODS'],
    'a spreadsheet that breaks off' => [fn () => substr((string) file_get_contents(spreadsheet('Xlsx', [['kpi'], ['A']])), 0, 900), 'damaged'],
]);

it('refuses a sheet that goes on for ever', function () {
    $path = tempnam(sys_get_temp_dir(), 'csv');
    file_put_contents($path, str_repeat("A,B\n", Bounds::MOST_ROWS + 3));
    expect(fn () => iterator_count(Table::open($path)->rows()))->toThrow(BadTable::class, '100,000 rows');
});

it('keeps a file to whoever sent it and the analyst', function () {
    $id = $this->as('owner') ? ($this->send)("kpi,period,actual\nNIGHT,2026-08,1\n")->json('id') : 0;
    $this->as('head')->getJson("/api/imports/{$id}")->assertNotFound();
    $this->postJson("/api/imports/{$id}/application")->assertNotFound();
    $this->as('analyst')->getJson("/api/imports/{$id}")->assertOk();
    $this->as('executive')->postJson('/api/units/NET/imports', [])->assertForbidden();
});
