<?php

declare(strict_types=1);

namespace App\Console\Commands;

use App\Figures\Layer;
use App\Import\ImportFigures;
use App\Import\ReadFile;
use App\Logbook\CellTrial;
use App\Logbook\SaveCells;
use App\Logbook\TypedCell;
use App\Logbook\YearGridReader;
use App\Models\Import;
use App\Models\Role;
use App\Models\Unit;
use App\Models\User;
use App\Support\Month;
use Carbon\CarbonImmutable;
use Illuminate\Console\Command;
use Illuminate\Database\Connection;
use Illuminate\Database\Eloquent\Builder;
use Illuminate\Support\Str;
use Kybernet\Core\Calendar\Frequency;
use Kybernet\Core\Calendar\Period;
use ZipArchive;

/**
 * Times the logbook on a generated unit, inside a transaction that is undone: nothing of it stays.
 */
final class BenchLogbook extends Command
{
    private const PASTED_ROWS = 500;

    private const GRID_ROWS = 2_000;

    private const IMPORT_ROWS = 1_000;

    private const IMPORT_MONTHS = 100;

    protected $signature = 'bench:logbook {part : paste, grid, import-csv or import-xlsx; one a process, so that its memory is its own}';

    protected $description = 'Time a pasted block of 500 × 12, a year grid of 2,000 rows, an import of 100,000 rows';

    public function handle(Connection $database): int
    {
        CarbonImmutable::setTestNow('2026-09-08');
        $database->beginTransaction();
        try {
            $user = User::query()->whereHas('grants', fn (Builder $grants): Builder => $grants->where('role', Role::Analyst))->firstOrFail();
            match ($this->argument('part')) {
                'paste' => $this->paste($user),
                'grid' => $this->grid($user),
                'import-csv' => $this->import($user, 'csv'),
                'import-xlsx' => $this->import($user, 'xlsx'),
                default => $this->error('There is paste, grid, import-csv and import-xlsx.'),
            };
        } finally {
            $database->rollBack();
        }
        $this->line(sprintf('peak memory %d MB', memory_get_peak_usage() / 1_000_000));

        return self::SUCCESS;
    }

    private function paste(User $user): void
    {
        $unit = $this->unit(self::PASTED_ROWS, 36);
        $months = Period::parse('2025-10')->to(Period::parse('2026-09'));
        /** @var list<int> $ids */
        $ids = $this->laravel->make(Connection::class)->table('kpi_unit')->where('unit_id', $unit->id)->orderBy('id')->pluck('id')->values()->all();
        $cells = [];
        foreach ($ids as $row => $id) {
            foreach ($months as $column => $month) {
                $was = $column === 11 ? '' : number_format(self::figure($row, $month), 1, '.', '');
                $cells[] = new TypedCell($id, $month->key(), number_format(self::figure($row, $month) + 3, 1, '.', ','), $was);
            }
        }
        $this->timed('read and judged, '.count($cells).' cells', fn () => $this->laravel->make(CellTrial::class)($cells, false, Period::parse('2026-09'), $user));
        $outcomes = $this->timed('saved', fn (): array => $this->laravel->make(SaveCells::class)($cells, Layer::Reading, $user));
        $this->timed('the touched rows again', fn (): array => $this->laravel->make(YearGridReader::class)->again($unit, Period::parse('2026-09'), 'actual', Frequency::Month, $ids, $user));
        $this->line(json_encode(array_count_values(array_column($outcomes, 'outcome')), JSON_THROW_ON_ERROR));
    }

    private function grid(User $user): void
    {
        $unit = $this->unit(self::GRID_ROWS, 36);
        $page = $this->timed('year grid of '.self::GRID_ROWS.' rows', fn () => $this->laravel->make(YearGridReader::class)->page($unit, Period::parse('2026-08'), 'actual', Frequency::Month, $user));
        $json = $this->timed('as JSON', fn (): string => json_encode($page, JSON_THROW_ON_ERROR));
        $this->line(sprintf('%d kB, %d kB compressed', strlen($json) / 1000, strlen((string) gzencode($json)) / 1000));
    }

    private function import(User $user, string $format): void
    {
        $unit = $this->unit(self::IMPORT_ROWS, 0);
        $path = (string) tempnam(sys_get_temp_dir(), 'kybernet');
        $this->writeFile($path, $format);
        $import = Import::query()->create([
            'batch' => (string) Str::uuid(), 'user_id' => $user->id, 'unit_id' => $unit->id, 'file' => "bench.{$format}", 'path' => $path, 'state' => 'reading',
            'mapping' => ['roles' => ['kpi', 'unit', 'period', 'actual'], 'periods' => (object) []],
        ])->refresh();
        $this->timed(sprintf('read and held against the database, %d rows of %s (%d kB)', self::IMPORT_ROWS * self::IMPORT_MONTHS, $format, (int) filesize($path) / 1000), fn () => $this->laravel->make(ReadFile::class)($import, $user));
        $import->update(['state' => 'applying']);
        $this->timed('applied', fn () => $this->laravel->make(ImportFigures::class)->apply($import, $user));
        $import->update(['state' => 'undoing']);
        $this->timed('undone', fn () => $this->laravel->make(ImportFigures::class)->undo($import, $user));
        $this->line("ends as {$import->refresh()->state}");
        unlink($path);
    }

    /** A unit of its own with so many KPIs and months of readings. */
    private function unit(int $kpis, int $months): Unit
    {
        $database = $this->laravel->make(Connection::class);
        $database->select("SELECT set_config('kybernet.audit', 'off', true)");
        $root = Unit::query()->whereNull('parent_id')->firstOrFail();
        $unit = Unit::query()->create(['code' => 'BENCH', 'name' => 'Bench', 'kind' => 'department', 'parent_id' => $root->id, 'position' => 999]);
        $database->insert(
            "INSERT INTO kpis (code, name, department_id, level, polarity, accumulation, decimals, measure)
             SELECT 'B' || n, 'Bench ' || n, ?, 'departmental', 'lower', 'mean', 1, 'x' FROM generate_series(1, ?::int) n",
            [$unit->id, $kpis],
        );
        $database->insert('INSERT INTO kpi_unit (kpi_id, unit_id, position) SELECT id, ?, id % 30000 FROM kpis WHERE department_id = ? ORDER BY id', [$unit->id, $unit->id]);
        $database->insert("INSERT INTO rule_sets (kpi_id, valid_from, reference, measure, green, amber) SELECT id, '2010-01-01', 'target', 'percent', 0, 5 FROM kpis WHERE department_id = ?", [$unit->id]);
        foreach (['readings' => 'actual', 'targets' => 'target'] as $table => $column) {
            $rows = [];
            $ids = $database->table('kpi_unit')->where('unit_id', $unit->id)->orderBy('id')->pluck('id')->all();
            foreach ($ids as $row => $id) {
                for ($back = 1; $back <= $months; $back++) {
                    $month = Period::parse('2026-09')->plus(-$back);
                    $rows[] = ['kpi_unit_id' => $id, 'period' => Month::date($month), $column => number_format(self::figure($row, $month) + ($table === 'targets' ? 2 : 0), 1, '.', '')];
                }
            }
            foreach (array_chunk($rows, 5_000) as $chunk) {
                $database->table($table)->insert($chunk);
            }
        }
        $database->statement('ANALYZE readings, targets, kpis, kpi_unit');
        $database->select("SELECT set_config('kybernet.audit', 'on', true)");
        app()->forgetScopedInstances();

        return $unit;
    }

    private static function figure(int $row, Period $month): float
    {
        return 100 + ($row * 7 + $month->ordinal * 3) % 40;
    }

    private function writeFile(string $path, string $format): void
    {
        $months = Period::parse('2026-08')->plus(1 - self::IMPORT_MONTHS)->to(Period::parse('2026-08'));
        $rows = function () use ($months): iterable {
            yield ['kpi', 'unit', 'period', 'actual'];
            for ($row = 1; $row <= self::IMPORT_ROWS; $row++) {
                foreach ($months as $month) {
                    yield ["B{$row}", 'BENCH', $month->key(), (string) self::figure($row, $month)];
                }
            }
        };
        $text = '';
        $line = 0;
        foreach ($rows() as $cells) {
            $line++;
            $text .= $format === 'csv' ? implode(',', $cells)."\n" : "<row r=\"{$line}\">".implode('', array_map(
                fn (string $cell, int $at): string => $at === 3 && $line > 1 ? "<c r=\"D{$line}\"><v>{$cell}</v></c>" : '<c r="'.chr(65 + $at)."{$line}\" t=\"inlineStr\"><is><t>{$cell}</t></is></c>",
                $cells,
                array_keys($cells),
            )).'</row>';
        }
        if ($format === 'csv') {
            file_put_contents($path, $text);

            return;
        }
        $main = 'http://schemas.openxmlformats.org/spreadsheetml/2006/main';
        $relations = 'http://schemas.openxmlformats.org/officeDocument/2006/relationships';
        $archive = new ZipArchive;
        $archive->open($path, ZipArchive::OVERWRITE);
        $archive->addFromString('xl/workbook.xml', "<workbook xmlns=\"{$main}\" xmlns:r=\"{$relations}\"><sheets><sheet name=\"1\" sheetId=\"1\" r:id=\"rId1\"/></sheets></workbook>");
        $archive->addFromString('xl/_rels/workbook.xml.rels', "<Relationships xmlns=\"http://schemas.openxmlformats.org/package/2006/relationships\"><Relationship Id=\"rId1\" Type=\"{$relations}/worksheet\" Target=\"worksheets/sheet1.xml\"/></Relationships>");
        $archive->addFromString('xl/worksheets/sheet1.xml', "<worksheet xmlns=\"{$main}\"><sheetData>{$text}</sheetData></worksheet>");
        $archive->close();
    }

    /**
     * @template Result
     *
     * @param  \Closure(): Result  $work
     * @return Result
     */
    private function timed(string $what, \Closure $work): mixed
    {
        // What it took to make the bench itself is not what is measured.
        memory_reset_peak_usage();
        $start = hrtime(true);
        $result = $work();
        $this->line(sprintf('%s: %.2f s, %d MB', $what, (hrtime(true) - $start) / 1e9, memory_get_peak_usage() / 1_000_000));

        return $result;
    }
}
