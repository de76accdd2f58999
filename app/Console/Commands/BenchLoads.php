<?php

declare(strict_types=1);

namespace App\Console\Commands;

use App\Figures\CountedWriter;
use App\Models\Measurement;
use App\Models\RecordLoad;
use App\Models\RecordSet;
use App\Models\User;
use App\Organisation\Organisation;
use App\Sources\BehindFinder;
use App\Sources\BringIn;
use App\Sources\CountPreviewer;
use App\Sources\RecordsReader;
use App\Sources\SaveSet;
use App\Sources\StageFile;
use App\Sources\WantedRecords;
use App\Sources\WantedSet;
use Closure;
use Illuminate\Console\Command;
use Illuminate\Support\Facades\DB;
use Kybernet\Core\Calendar\Frequency;
use Kybernet\Core\Calendar\Period;
use Kybernet\Core\Calendar\Span;

/**
 * Times what happens to records: a file of them is read and brought in, beside plain COPY of the same file; a sentence is
 * previewed; a load changes some; a page of those behind a figure is read. All of it is undone in the end.
 */
final class BenchLoads extends Command
{
    private const CHANGED = 10_000;

    private const ROUNDS = 5;

    private const TYPES = ['job' => 'text', 'zone' => 'text', 'kind' => 'text', 'reported' => 'date', 'repaired' => 'date', 'cost' => 'number', 'cancelled' => 'yesno', 'crew' => 'text'];

    protected $signature = 'bench:loads {records=1000000}';

    protected $description = 'Time loads of generated records';

    public function handle(SaveSet $save, StageFile $stage, BringIn $bring, CountedWriter $writer, CountPreviewer $previewer, BehindFinder $finder, RecordsReader $records, Organisation $organisation): int
    {
        $count = max(1, (int) $this->argument('records'));
        $units = array_values($organisation->units());
        $zones = array_map(fn ($unit): string => $unit->code, array_slice($units, -12));
        $file = $this->file($count, $zones);
        $this->line(number_format($count).' records, '.number_format((int) filesize($file) / 1e6, 1).' MB of CSV');
        DB::beginTransaction();
        try {
            $set = $save->make($this->wanted($units[0]->id));
            memory_reset_peak_usage();
            $load = $this->load($set, $file);
            $this->timed('read and held against what is there', fn () => $stage($load->refresh()));
            $load->newQuery()->whereKey($load->id)->update(['state' => 'applying']);
            $this->timed('brought in', fn () => $bring->apply($load->refresh()));
            $this->line(sprintf('%-38s %8.1f MB', 'most memory of PHP', memory_get_peak_usage(true) / 1e6));
            $this->copied($file);
            $this->kpi($set, $units, $writer, $finder, $records, $previewer);
            $changed = $this->file(self::CHANGED, $zones, 1);
            $load = $this->load($set, $changed);
            $stage($load->refresh());
            $load->newQuery()->whereKey($load->id)->update(['state' => 'applying']);
            $this->timed(number_format(self::CHANGED).' changed brought in, figures counted', fn () => $bring->apply($load->refresh()));
            unlink($changed);
        } finally {
            DB::rollBack();
            unlink($file);
        }

        return self::SUCCESS;
    }

    /** @param  Closure(): mixed  $work */
    private function timed(string $words, Closure $work): void
    {
        $started = hrtime(true);
        $work();
        $this->line(sprintf('%-38s %8.2f s', $words, (hrtime(true) - $started) / 1e9));
    }

    /** @param  Closure(): mixed  $work */
    private function fastest(string $words, Closure $work): void
    {
        $best = INF;
        for ($round = 0; $round < self::ROUNDS; $round++) {
            $started = hrtime(true);
            $work();
            $best = min($best, (hrtime(true) - $started) / 1e6);
        }
        $this->line(sprintf('%-38s %8.1f ms', $words, $best));
    }

    /** @param  list<string>  $zones */
    private function file(int $count, array $zones, int $seed = 0): string
    {
        $path = (string) tempnam(sys_get_temp_dir(), 'bench');
        $file = fopen($path, 'wb');
        if ($file === false) {
            throw new \RuntimeException('There is no place for the file.');
        }
        mt_srand(5 + $seed);
        fwrite($file, implode(',', array_keys(self::TYPES))."\n");
        $kinds = ['burst', 'visible leak', 'valve', 'meter'];
        for ($at = 1; $at <= $count; $at++) {
            $reported = strtotime('2024-04-01') + mt_rand(0, 870) * 86_400;
            fwrite($file, implode(',', [
                "J-{$at}", $zones[mt_rand(0, count($zones) - 1)], $kinds[mt_rand(0, 3)], gmdate('Y-m-d', $reported), mt_rand(0, 30) === 0 ? '' : gmdate('Y-m-d', $reported + mt_rand(0, 20) * 86_400),
                mt_rand(0, 500).'.'.mt_rand(10, 99), mt_rand(0, 50) === 0 ? 'yes' : 'no', 'East '.mt_rand(1, 9),
            ])."\n");
        }
        fclose($file);

        return $path;
    }

    private function wanted(int $unit): WantedSet
    {
        $field = fn (string $name, string $type): array => ['name' => $name, 'was' => null, 'type' => $type, 'expression' => null, 'meaning' => '', 'sensitive' => false, 'column' => $name, 'form' => ''];

        return new WantedSet('BENCH-JOBS', 'Bench', 'jobs', $unit, 'job', [
            ...array_map($field, array_keys(self::TYPES), self::TYPES),
            ['name' => 'took', 'was' => null, 'type' => null, 'expression' => 'days(reported, repaired)', 'meaning' => '', 'sensitive' => false, 'column' => null, 'form' => ''],
        ], 'zone', [], '2024-04-01', '2026-08-31', false, 'key', [], 0);
    }

    private function load(RecordSet $set, string $file): RecordLoad
    {
        $load = RecordLoad::query()->create([
            'record_set_id' => $set->id, 'way' => 'file', 'file' => 'bench.csv', 'path' => $file, 'sheet' => '', 'mode' => 'key', 'mapping' => [], 'state' => 'reading', 'is_unattended' => false,
        ]);

        return $load;
    }

    /** The same file as the database itself takes it. */
    private function copied(string $file): void
    {
        $types = ['text' => 'text', 'date' => 'date', 'number' => 'numeric', 'yesno' => 'boolean'];
        DB::statement('CREATE TEMP TABLE bench_plain ('.implode(', ', array_map(fn (string $name, string $type): string => "{$name} {$types[$type]}", array_keys(self::TYPES), self::TYPES)).') ON COMMIT DROP');
        $this->timed('the same file by plain COPY', function () use ($file): void {
            $lines = [];
            $pdo = DB::connection()->getPdo();
            $read = new \SplFileObject($file);
            $read->fgets();
            while (! $read->eof()) {
                $line = rtrim($read->fgets(), "\n");
                if ($line !== '') {
                    // In the text form of COPY nothing is written as \N.
                    $lines[] = str_replace(',,', ',\N,', $line);
                }
                if (count($lines) >= 20_000) {
                    $pdo->pgsqlCopyFromArray('bench_plain', $lines, ',', '\\\\N');
                    $lines = [];
                }
            }
            if ($lines !== []) {
                $pdo->pgsqlCopyFromArray('bench_plain', $lines, ',', '\\\\N');
            }
        });
    }

    /** @param  list<\App\Models\Unit>  $units */
    private function kpi(RecordSet $set, array $units, CountedWriter $writer, BehindFinder $finder, RecordsReader $records, CountPreviewer $previewer): void
    {
        $counted = ['records' => 'BENCH-JOBS', 'take' => 'share', 'met' => [['of' => 'took', 'atMost' => '5']], 'where' => [['of' => 'kind', 'oneOf' => ['burst', 'visible leak']], ['of' => 'cancelled', 'is' => false]], 'datedBy' => 'repaired', 'unit' => 'zone'];
        $user = User::query()->where('email', 'analyst@ostermere.example')->firstOrFail();
        $this->fastest('preview of the sentence', fn () => $previewer->read($counted, [], '', $units[0], Period::parse('2026-08'), Frequency::Month, 1, $user));
        $kpi = DB::table('kpis')->insertGetId([
            'code' => 'BENCH-SHARE', 'name' => 'Bench share', 'purpose' => '', 'measure' => '%', 'decimals' => 1, 'level' => 'departmental', 'polarity' => 'higher', 'accumulation' => 'mean', 'kind' => 'records', 'frequency' => 'month',
            'department_id' => $units[0]->id, 'counted' => json_encode($counted, JSON_THROW_ON_ERROR), 'record_set_id' => $set->id,
        ]);
        foreach ([$units[0], ...array_slice($units, -12)] as $unit) {
            DB::table('kpi_unit')->insert(['kpi_id' => $kpi, 'unit_id' => $unit->id]);
        }
        $this->timed('figures of 13 units and 29 months', fn () => $writer([$kpi]));
        $place = Measurement::query()->where('kpi_id', $kpi)->orderBy('id')->firstOrFail();
        $this->fastest('a page of the records behind a figure', function () use ($finder, $records, $place, $user): void {
            $behind = $finder->find($place, Period::parse('2026-08'), Span::Month) ?? throw new \LogicException('What is counted has records.');
            $records->page($behind, new WantedRecords('took', true), $user);
        });
    }
}
