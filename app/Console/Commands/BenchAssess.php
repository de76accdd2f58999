<?php

declare(strict_types=1);

namespace App\Console\Commands;

use App\Support\Formats;
use Illuminate\Console\Command;
use Illuminate\Support\Facades\DB;
use Kybernet\Core\Calendar\Period;
use Kybernet\Core\Calendar\Span;
use Kybernet\Core\Measure\Exact;
use Kybernet\Core\Status\Polarity;
use Kybernet\Core\Workbook\AssessmentWriter;
use Kybernet\Core\Workbook\Assessor;
use Kybernet\Core\Workbook\Workbook;
use Kybernet\Core\Workbook\WorkbookWriter;

/** Times what `assess` does, on a workbook made for it: reading, judging everything, writing the text. */
final class BenchAssess extends Command
{
    private const UNITS = 20;

    private const LAST_MONTH = '2026-08';

    /** So often is each of the two timed; the fastest counts. */
    private const ROUNDS = 5;

    protected $signature = 'bench:assess {measurements=2000} {--months=36 : of figures and targets} {--sql : beside the same work as plain SQL, whose results are held against it}';

    protected $description = 'Time the assessment of a generated workbook';

    public function handle(): int
    {
        $count = max(self::UNITS, (int) $this->argument('measurements'));
        $months = max(1, (int) $this->option('months'));
        $file = (string) tempnam(sys_get_temp_dir(), 'kybernet');
        $this->write($file, intdiv($count, self::UNITS), $months);
        $text = (string) file_get_contents($file);
        $size = strlen($text) / 2 ** 20;
        unlink($file);

        $started = hrtime(true);
        $workbook = Formats::reader()->read($text);
        $read = (hrtime(true) - $started) / 1e6;
        unset($text);
        $bytes = 0;
        foreach ((new AssessmentWriter($workbook, Period::parse(self::LAST_MONTH), Span::YearToDate))->json() as $piece) {
            $bytes += strlen($piece);
        }
        $all = (hrtime(true) - $started) / 1e6;
        $count = intdiv($count, self::UNITS) * self::UNITS;
        $this->line(sprintf('%s measurements × %d months: a workbook of %.1f MB, an assessment of %.1f MB', number_format($count), $months, $size, $bytes / 2 ** 20));
        $this->line(sprintf('read %.2f s, judged and written %.2f s; %.3f ms for each measurement, %.3f of it judging', $read / 1e3, ($all - $read) / 1e3, $all / $count, ($all - $read) / $count));
        $this->line(sprintf('%.0f MB of memory at most', memory_get_peak_usage(true) / 2 ** 20));

        return ! $this->option('sql') || $this->beside($workbook) ? self::SUCCESS : self::FAILURE;
    }

    /** Both in turns, so that whatever else the machine does falls on both. */
    private function beside(Workbook $workbook): bool
    {
        $chosen = Period::parse(self::LAST_MONTH);
        $this->fill($workbook);
        $sql = str_replace([':chosen', ':april'], [(string) $chosen->ordinal, (string) Period::parse('2026-04')->ordinal], (string) file_get_contents(base_path('database/bench/assess.sql')));
        DB::unprepared("SET work_mem = '64MB'; SET jit = off");
        $fastest = ['core' => INF, 'sql' => INF];
        $rows = [];
        $bytes = 0;
        foreach (range(1, self::ROUNDS) as $round) {
            $started = hrtime(true);
            foreach ((new AssessmentWriter($workbook, $chosen, Span::YearToDate))->json() as $piece) {
                $bytes += strlen($piece);
            }
            $fastest['core'] = min($fastest['core'], (hrtime(true) - $started) / 1e6);
            $started = hrtime(true);
            $rows = DB::select($sql);
            $fastest['sql'] = min($fastest['sql'], (hrtime(true) - $started) / 1e6);
        }
        $wrong = $this->differences($workbook, $rows);
        $this->line(sprintf('judged and written %.0f ms, as plain SQL %.0f ms: %.1f times; %s figures and statuses compared, %d differ', $fastest['core'], $fastest['sql'], $fastest['core'] / $fastest['sql'], number_format(4 * count($rows)), $wrong));

        return $wrong === 0 && $rows !== [];
    }

    /** The workbook's figures in tables that go with the connection. */
    private function fill(Workbook $workbook): void
    {
        DB::unprepared('CREATE TEMP TABLE bench_kpi (id int PRIMARY KEY, sign int, accumulation text, reference text, measure text, green numeric, amber numeric, above int, below int);
            CREATE TEMP TABLE bench_place (id int PRIMARY KEY, kpi int, unit text, UNIQUE (kpi, unit));
            CREATE TEMP TABLE bench_cell (place int, month int, actual numeric, target numeric, PRIMARY KEY (place, month));');
        $number = fn (string $code): int => (int) substr($code, 1);
        foreach ($workbook->kpis as $kpi) {
            $rule = WorkbookWriter::rule($kpi->definition->rules[0]);
            $operands = array_keys($kpi->definition->formula->operands ?? []);
            DB::table('bench_kpi')->insert([
                'id' => $number($kpi->code), 'sign' => $kpi->definition->polarity === Polarity::Higher ? 1 : -1, 'accumulation' => $kpi->definition->accumulation->value,
                'reference' => $rule['reference'], 'measure' => $rule['measure'], 'green' => $rule['green'], 'amber' => $rule['amber'],
                'above' => $operands === [] ? null : $number($operands[0]), 'below' => $operands === [] ? null : $number($operands[1]),
            ]);
        }
        $place = 0;
        foreach ($workbook->entries() as $entry) {
            $place++;
            $cells = [];
            foreach ($entry->placed->targets->all() as $period => $target) {
                $cells[] = ['place' => $place, 'month' => Period::parse($period)->ordinal, 'actual' => $entry->placed->readings->all()[$period] ?? null, 'target' => $target];
            }
            DB::table('bench_place')->insert(['id' => $place, 'kpi' => $number($entry->placed->kpi), 'unit' => $entry->placed->unit]);
            DB::table('bench_cell')->insert($cells);
        }
        DB::unprepared('ANALYZE bench_kpi; ANALYZE bench_place; ANALYZE bench_cell;');
    }

    /**
     * @param  array<array-key, mixed>  $rows
     * @return int how many figures and statuses differ
     */
    private function differences(Workbook $workbook, array $rows): int
    {
        $assessed = [];
        $place = 0;
        foreach ((new Assessor($workbook, Period::parse(self::LAST_MONTH), Span::YearToDate))->assessments() as $each) {
            $place++;
            foreach ($each->spans as $span => $assessment) {
                $assessed["{$place} {$span}"] = $assessment;
            }
        }
        $wrong = 0;
        foreach ($rows as $row) {
            $told = (array) $row;
            $text = fn (string $column): ?string => is_scalar($told[$column] ?? null) ? (string) $told[$column] : null;
            $core = $assessed["{$text('id')} {$text('name')}"];
            $is = fn (?Exact $one, ?string $other): bool => $one === null || $other === null ? $one?->__toString() === $other : abs($one->toFloat() - (float) $other) < 1e-9;
            $wrong += (int) ($core->computed->value !== $text('status')) + (int) ! $is($core->figures->actual, $text('actual'))
                + (int) ! $is($core->figures->goal?->target, $text('target')) + (int) ! $is($core->prior->figure, $text('prior'));
        }

        return $wrong;
    }

    /** Every kind of rule, a formula for every eighth KPI, and a missing figure in twenty. */
    private function write(string $file, int $kpis, int $months): void
    {
        mt_srand(20261123);
        $handle = fopen($file, 'wb');
        if ($handle === false) {
            throw new \RuntimeException('There is no room for the workbook.');
        }
        $open = null;
        $item = function (string $part, array $value) use ($handle, &$open): void {
            fwrite($handle, ($open === $part ? ",\n" : ($open === null ? '{"format":"kybernet-workbook","version":1,"calendar":{"yearStartMonth":4},' : "],\n")."\"{$part}\":[\n").json_encode($value));
            $open = $part;
        };
        $units = array_map(fn (int $unit): string => "U{$unit}", range(1, self::UNITS));
        $item('units', ['code' => 'ORG', 'name' => 'Organisation']);
        foreach ($units as $unit) {
            $item('units', ['code' => $unit, 'name' => $unit, 'parent' => 'ORG']);
        }
        for ($kpi = 1; $kpi <= $kpis; $kpi++) {
            $item('kpis', $this->kpi($kpi, $units));
        }
        $first = Period::parse(self::LAST_MONTH)->plus(1 - $months);
        foreach (['readings' => 'actual', 'targets' => 'target'] as $part => $member) {
            for ($kpi = 1; $kpi <= $kpis; $kpi++) {
                foreach ($part === 'readings' && $kpi % 8 === 0 ? [] : $units as $unit) {
                    for ($month = 0; $month < $months; $month++) {
                        if ($part === 'targets' || mt_rand(1, 20) > 1) {
                            $item($part, ['kpi' => "K{$kpi}", 'unit' => $unit, 'period' => $first->plus($month)->key(), $member => sprintf('%d.%d', mt_rand(80, 120), mt_rand(0, 9))]);
                        }
                    }
                }
            }
        }
        fwrite($handle, ']}');
        fclose($handle);
    }

    /**
     * @param  list<string>  $units
     * @return array<string, mixed>
     */
    private function kpi(int $number, array $units): array
    {
        $isFormula = $number % 8 === 0;
        $polarity = $number % 2 === 0 ? 'higher' : 'lower';
        [$reference, $measure, $green, $amber] = [
            ['target', 'percent', '0', '5'], ['target', 'absolute', '0', '4'], ['none', 'level', $polarity === 'higher' ? '102' : '98', '100'],
            ['prior-year', 'percent', '0', '5'], ['target', 'reached', '100', '95'],
        ][$number % 5];

        return [
            'code' => "K{$number}", 'name' => "KPI {$number}", 'kind' => $isFormula ? 'formula' : 'entered', 'measure' => 'Ml/d', 'decimals' => 1,
            'polarity' => $polarity, 'accumulation' => $isFormula ? 'recompute' : ['sum', 'mean', 'latest', 'mean'][$number % 4],
            'formula' => $isFormula ? sprintf('K%d / K%d * 100', $number - 1, $number - 2) : null,
            'units' => array_map(fn (string $unit): array => ['unit' => $unit], $units),
            'rules' => [['from' => '2020-04', 'reference' => $reference, 'measure' => $measure, 'green' => $green, 'amber' => $amber]],
        ];
    }
}
