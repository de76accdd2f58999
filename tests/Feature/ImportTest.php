<?php

declare(strict_types=1);

use App\Import\ImportJob;
use App\Models\Reading;
use App\Tables\BadTable;
use App\Tables\Bounds;
use App\Tables\NumberCell;
use App\Tables\Table;
use Carbon\CarbonImmutable;
use Illuminate\Http\UploadedFile;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Facades\Queue;
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
    $this->putJson('/api/measurements/'.self::measured('VALVES', 'NET')->id.'/readings/2026-07', ['typed' => '800', 'version' => 2])->assertOk();
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
    $this->putJson('/api/measurements/'.self::measured('LEAK', 'NET')->id.'/readings/2026-08', ['typed' => '63', 'version' => 1])->assertOk();
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
    // A year target stays one, and a closed month that is the same is the same.
    DB::table('year_targets')->insert(['kpi_unit_id' => $this->measuredId('NIGHT'), 'year' => 2026, 'target' => '1.5']);
    DB::table('targets')->where('kpi_unit_id', $this->measuredId('NIGHT'))->where('period', '>=', '2026-09-01')->delete();
    $exported = $this->get("/api/units/OST/figures?period=2026-08&format={$format}")->assertOk()->streamedContent();
    $page = ($this->preview)($exported, "figures.{$format}", 'OST');
    $refused = DB::table('import_cells')->where('import_id', $page['id'])->where('outcome', 'refused')->pluck('reason')->unique()->values()->all();

    // Worked-out figures take nothing; all else is the same.
    expect($page['counts'])->new->toBe(0)->changed->toBe(0)->same->toBeGreaterThan(300)
        ->and(array_filter($refused, fn (string $reason): bool => ! str_contains($reason, 'takes no such entry')))->toBe([]);
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

it('understands headings below titles, on any sheet, in four languages, and what old programs write', function (string $content, array $typed) {
    $this->as('owner');
    $page = ($this->preview)($content);
    expect(array_column($page['cells'], 'typed'))->toBe($typed)->and($page['counts']['refused'])->toBe(0);
})->with([
    'titles above' => ["Figures of Network\n\nas of September\nkpi,unit,period,actual\nNIGHT,NET,2026-08,1.8\n", ['1.8']],
    'German, in Windows-1252' => [mb_convert_encoding("Kennzahl;Abteilung;Monat;Ist;Bemerkung\nNIGHT;NET;Aug. 2026;1.8;Zähler größer\n", 'Windows-1252', 'UTF-8'), ['1.8', 'Zähler größer']],
    'French' => ["Indicateur;Unité;Mois;Réalisé\nNIGHT;NET;août 2026;1.8\n", ['1.8']],
    'Dutch, months across' => ["Kengetal;Afdeling;juli 2026;aug 2026\nNIGHT;NET;;1.8\n", ['1.8']],
]);

it('asks which sheet, and takes the line of the heads from a person', function () {
    $book = new Spreadsheet;
    $book->getActiveSheet()->setTitle('Cover')->fromArray([['Network'], ['2026/27']]);
    $book->createSheet()->setTitle('Data')->fromArray([['A title'], ['kpi', 'unit', 'period', 'actual'], ['NIGHT', 'NET', '2026-08', 1.8]]);
    IOFactory::createWriter($book, 'Xlsx')->save($path = tempnam(sys_get_temp_dir(), 'book'));
    $sent = $this->as('owner') ? ($this->send)((string) file_get_contents($path), 'book.xlsx')->assertCreated()->json() : [];

    expect($sent)->sheets->toBe(['Cover', 'Data'])->sheet->toBe('Data')->head->toBe(2)->and(array_column($sent['columns'], 'role'))->toBe(['kpi', 'unit', 'period', 'actual']);
    $this->putJson("/api/imports/{$sent['id']}/head", ['sheet' => 'Cover', 'line' => null])->assertOk()->assertJsonPath('sheet', 'Cover');
    $this->putJson("/api/imports/{$sent['id']}/head", ['sheet' => 'Data', 'line' => 9])->assertStatus(422)->assertJsonPath('errors.0.detail', 'There is nothing in that line.');
    $this->putJson("/api/imports/{$sent['id']}/head", ['sheet' => 'None', 'line' => 1])->assertStatus(422);
    $this->putJson("/api/imports/{$sent['id']}/head", ['sheet' => 'Data', 'line' => 2])->assertOk()->assertJsonPath('columns.3.role', 'actual');
});

it('takes up an import whose worker died, and gives it back after the third', function () {
    $sent = $this->as('owner') ? ($this->send)("kpi,unit,period,actual\nNIGHT,NET,2026-08,1.8\n")->json() : [];
    $die = fn () => DB::table('imports')->where('id', $sent['id'])->update(['state' => 'applying', 'alive_at' => now()->subMinute()]);
    Queue::fake();
    $die();
    app('steps-of-imports')->resume();
    Queue::assertPushed(ImportJob::class, fn (ImportJob $job): bool => $job->turn === 1);
    // Waiting for a worker is not being dead, however long it takes.
    app('steps-of-imports')->resume();
    DB::table('imports')->where('id', $sent['id'])->update(['updated_at' => now()->subMinute()]);
    DB::table('jobs')->insert(['queue' => 'default', 'payload' => '{}', 'attempts' => 0, 'reserved_at' => null, 'available_at' => 0, 'created_at' => 0]);
    app('steps-of-imports')->resume();
    Queue::assertPushed(ImportJob::class, 1);
    // A worker that died between taking the job and saying so leaves none that waits.
    DB::table('jobs')->update(['reserved_at' => 1]);
    app('steps-of-imports')->resume();
    Queue::assertPushed(ImportJob::class, fn (ImportJob $job): bool => $job->turn === 2);
    DB::table('imports')->where('id', $sent['id'])->update(['tries' => 2]);
    foreach ([2, 3] as $turn) {
        $die();
        app('steps-of-imports')->resume();
    }
    $die();
    app('steps-of-imports')->resume();
    expect(DB::table('imports')->find($sent['id']))->state->toBe('ready')->problem->toContain('interrupted three times');
    // Whoever comes late, with a turn that is over, does nothing.
    DB::table('imports')->where('id', $sent['id'])->update(['state' => 'applying']);
    app()->call([new ImportJob($sent['id'], 1), 'handle']);
    expect(DB::table('imports')->find($sent['id'])->state)->toBe('applying');
});

it('refuses small files that are large inside, with a sentence and little memory', function (Closure $make, string $words) {
    $path = tempnam(sys_get_temp_dir(), 'hostile');
    $make($path);
    expect(filesize($path))->toBeLessThan(40_000_000);
    $before = memory_get_usage();
    memory_reset_peak_usage();
    expect(fn () => iterator_count(Table::open($path, '', 30)->rows()))->toThrow(BadTable::class, $words);
    expect(memory_get_peak_usage() - $before)->toBeLessThan(130_000_000);
    unlink($path);
})->with('hostile files');

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

dataset('hostile files', function (): array {
    /** @param  iterable<string>  $pieces  of the part that is large */
    $archive = function (string $path, string $part, iterable $pieces, string $sheet = '<worksheet><sheetData/></worksheet>'): void {
        $large = tempnam(sys_get_temp_dir(), 'part');
        $file = fopen($large, 'wb');
        foreach ($pieces as $piece) {
            fwrite($file, $piece);
        }
        fclose($file);
        $zip = new ZipArchive;
        $zip->open($path, ZipArchive::CREATE | ZipArchive::OVERWRITE);
        $parts = [
            'xl/workbook.xml' => '<workbook xmlns:r="http://schemas.openxmlformats.org/officeDocument/2006/relationships"><sheets><sheet name="S" sheetId="1" r:id="r1"/></sheets></workbook>',
            'xl/_rels/workbook.xml.rels' => '<Relationships><Relationship Id="r1" Target="worksheets/sheet1.xml"/></Relationships>',
            'xl/worksheets/sheet1.xml' => $sheet,
        ];
        foreach ($part === 'content.xml' ? ['mimetype' => 'application/vnd.oasis.opendocument.spreadsheet'] : $parts as $name => $text) {
            $zip->addFromString($name, $text);
        }
        $zip->addFile($large, $part);
        $zip->close();
        unlink($large);
    };
    $repeated = function (string $before, string $piece, int $times, string $after): Generator {
        yield $before;
        $many = str_repeat($piece, 1000);
        for ($done = 0; $done < $times; $done += 1000) {
            yield $many;
        }
        yield $after;
    };
    $ods = fn (string $rows): array => ['<office:document-content xmlns:office="o" xmlns:table="t" xmlns:text="x"><table:table table:name="T">'.$rows.'</table:table></office:document-content>'];

    return [
        '40 cells of 9 MB' => [fn (string $path) => $archive($path, 'xl/worksheets/sheet1.xml', (function () {
            yield '<worksheet><sheetData><row>';
            for ($cell = 0; $cell < 24; $cell++) {
                yield '<c t="inlineStr"><is><t>';
                yield str_repeat('x', 9_000_000);
                yield '</t></is></c>';
            }
            yield '</row></sheetData></worksheet>';
        })()), 'holds more text than a cell'],
        'a part of 400 MB' => [fn (string $path) => $archive($path, 'xl/worksheets/sheet1.xml', $repeated('<worksheet><sheetData>', str_repeat(' ', 4000), 100_000, '</sheetData></worksheet>')), 'unpacks to more'],
        'styles of 40 MB' => [fn (string $path) => $archive($path, 'xl/styles.xml', $repeated('<styleSheet>', str_repeat(' ', 400), 100_000, '</styleSheet>')), 'unpacks to more'],
        'millions of empty strings' => [fn (string $path) => $archive($path, 'xl/sharedStrings.xml', $repeated('<sst>', '<si/>', 2_000_000, '</sst>')), 'more text than can be read'],
        'millions of commas' => [fn (string $path) => file_put_contents($path, "kpi\n".str_repeat(',', 900_000)."\n"), 'beyond 400 columns'],
        'one line of 29 MB' => [fn (string $path) => file_put_contents($path, str_repeat('x', 29_000_000)), 'longer than a megabyte'],
        'a quotation mark that is never closed' => [fn (string $path) => file_put_contents($path, "kpi\n\"".str_repeat("x\n", 1_500_000)), 'never closed'],
        'rows without end' => [fn (string $path) => $archive($path, 'content.xml', $ods('<table:table-row table:number-rows-repeated="1000000000"><table:table-cell office:value-type="float" office:value="1"/></table:table-row>')), '100,000 rows'],
        'columns without end' => [fn (string $path) => $archive($path, 'content.xml', $ods('<table:table-row><table:table-cell table:number-columns-repeated="1000000000" office:value-type="float" office:value="1"/></table:table-row>')), 'beyond 400 columns'],
    ];
});
