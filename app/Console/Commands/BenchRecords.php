<?php

declare(strict_types=1);

namespace App\Console\Commands;

use App\Records\RecordTable;
use App\Records\RecordTally;
use Illuminate\Console\Command;
use Illuminate\Support\Facades\DB;
use Kybernet\Core\Calendar\FinancialYear;
use Kybernet\Core\Calendar\Period;
use Kybernet\Core\Records\Condition;
use Kybernet\Core\Records\Count;
use Kybernet\Core\Records\Counted;
use Kybernet\Core\Records\Coverage;
use Kybernet\Core\Records\Expression;
use Kybernet\Core\Records\FieldType;
use Kybernet\Core\Records\RecordSet;
use Kybernet\Core\Records\Take;
use Kybernet\Core\Records\Zone;

/** Times the figures of thirteen months counted from made-up records in the database, beside plain SQL that does the same. */
final class BenchRecords extends Command
{
    private const FIELDS = ['job' => FieldType::Text, 'zone' => FieldType::Text, 'kind' => FieldType::Text, 'reported' => FieldType::Date, 'repaired' => FieldType::Date, 'cost' => FieldType::Number];

    /** So often is each of the two timed, in turns; the fastest counts. */
    private const ROUNDS = 5;

    /** The same figures by hand: what is taken of the repaired jobs that burst or leaked. */
    private const BY_HAND = [
        'count' => 'count(*)',
        'mean' => 'round(avg(cost), 12)',
        'share' => 'round(100.0000000000000000 * count(*) FILTER (WHERE repaired - reported <= 5) / nullif(count(*), 0), 12)',
        'median' => 'percentile_cont(0.5) WITHIN GROUP (ORDER BY repaired - reported)::numeric',
    ];

    protected $signature = 'bench:records {records=100000}';

    protected $description = 'Time what is counted of generated records';

    public function handle(): int
    {
        $count = max(1, (int) $this->argument('records'));
        DB::unprepared("SELECT setseed(0.5); CREATE TEMP TABLE bench_records AS
            SELECT 'J-' || n AS job, 'Z-' || n % 12 AS zone, (ARRAY['burst', 'leak', 'meter', 'valve'])[1 + n % 4] AS kind, day AS reported, day + (random() * 20)::int AS repaired, round((random() * 500)::numeric, 2) AS cost
            FROM generate_series(1, {$count}) n, LATERAL (SELECT '2024-04-01'::date + (random() * 880)::int AS day OFFSET n * 0) days;
            CREATE INDEX ON bench_records (repaired); ANALYZE bench_records");
        $set = new RecordSet('JOBS', self::FIELDS, ['took' => Expression::parse('days(reported, repaired)', self::FIELDS)], new Coverage);
        $tally = new RecordTally(DB::connection(), $set, new RecordTable('bench_records', array_combine(array_keys(self::FIELDS), array_keys(self::FIELDS))), new Zone('Europe/London'));
        $year = new FinancialYear(4);
        $periods = Period::parse('2025-08')->to(Period::parse('2026-08'));
        $this->line(number_format($count).' records, the figures of 13 months');
        $isSame = true;
        foreach (self::BY_HAND as $take => $sql) {
            $counted = $this->counted(Take::from($take), $set);
            [$fastest, $figures] = [['core' => INF, 'sql' => INF], ['core' => [], 'sql' => []]];
            foreach (range(1, self::ROUNDS) as $round) {
                $started = hrtime(true);
                $figures['core'] = array_values(array_map(fn (Count $count): string => (string) $count->figure($counted->take), $tally->each($counted, array_map(fn (Period $period): array => [$year->days($period)], $periods))[0]));
                $fastest['core'] = min($fastest['core'], (hrtime(true) - $started) / 1e6);
                $started = hrtime(true);
                $figures['sql'] = $this->byHand($sql);
                $fastest['sql'] = min($fastest['sql'], (hrtime(true) - $started) / 1e6);
            }
            $isSame = $isSame && $figures['core'] === $figures['sql'];
            $this->line(sprintf('%-7s %6.1f ms, by hand %6.1f ms%s', $take, $fastest['core'], $fastest['sql'], $figures['core'] === $figures['sql'] ? '' : '; the figures differ'));
        }

        return $isSame ? self::SUCCESS : self::FAILURE;
    }

    /** @return list<string> */
    private function byHand(string $sql): array
    {
        /** @var list<object{figure: string}> $rows */
        $rows = DB::select("SELECT trim_scale(({$sql})::numeric)::text AS figure FROM bench_records WHERE kind IN ('burst', 'leak') AND repaired BETWEEN '2025-08-01' AND '2026-08-31' GROUP BY date_trunc('month', repaired) ORDER BY date_trunc('month', repaired)");

        return array_map(fn (object $row): string => $row->figure, $rows);
    }

    private function counted(Take $take, RecordSet $set): Counted
    {
        return new Counted(
            'JOBS', $take, $take->isOfValues() ? $set->source($take === Take::Mean ? 'cost' : 'took') : null, null,
            $take === Take::Share ? [Condition::read(['of' => 'took', 'atMost' => '5'], $set)] : [], 'repaired', null, null, [Condition::read(['of' => 'kind', 'oneOf' => ['burst', 'leak']], $set)],
        );
    }
}
