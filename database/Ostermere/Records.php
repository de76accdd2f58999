<?php

declare(strict_types=1);

namespace Database\Ostermere;

use DateTimeImmutable;
use Generator;
use Kybernet\Core\Calendar\Period;

/**
 * The records of Ostermere Water: thirty months of repair jobs, customer cases, invoices, samples, projects and visits,
 * made up by a dice that always falls alike.
 */
final class Records
{
    private const FIRST_MONTH = '2024-03';

    private const FIRST_DAY = '2024-03-01';

    private const LAST_DAY = '2026-08-31';

    private const ZONES = ['Z-FENWICK' => 16, 'Z-HOLM-BAY' => 9, 'Z-ALDERMOOR' => 13, 'Z-QUARREL-HILL' => 8, 'Z-SANDRY' => 7, 'Z-NETHER-VALE' => 8, 'Z-BRACKWATER' => 7, 'Z-TOLLGATE' => 9, 'Z-EASTRY-HEAD' => 6, 'Z-ORMSIDE' => 6, 'Z-LITTLE-MARL' => 5, 'Z-PENNOCK' => 5, 'FNW-OLD' => 1];

    private const WORKS = ['W-HARROW-LANE', 'W-STONEWELL', 'W-MIREFIELD', 'W-UPPER-DUNNEL', 'W-COLDBECK', 'W-ASHGROVE', 'W-SALTMARSH-ROAD', 'W-KESTREL-BANK'];

    /**
     * Each set: whose it is, what tells its records apart, its fields and what is calculated of them, and its records.
     *
     * @return array<string, array{name: string, noun: string, unit: string, key: string, unitField: string|null, fields: list<array<string, mixed>>, rows: \Closure(): Generator<int, list<string>>}>
     */
    public static function sets(): array
    {
        $field = fn (string $name, string $type, string $meaning = '', bool $isSensitive = false): array => ['name' => $name, 'type' => $type, 'meaning' => $meaning, 'sensitive' => $isSensitive];
        $calculated = fn (string $name, string $expression, string $meaning): array => ['name' => $name, 'expression' => $expression, 'meaning' => $meaning];

        return [
            'JOBS' => ['name' => 'Repair jobs', 'noun' => 'jobs', 'unit' => 'NET', 'key' => 'job', 'unitField' => 'zone', 'fields' => [
                $field('job', 'text', 'number of the job'), $field('zone', 'text', 'where it was'), $field('kind', 'text'), $field('called', 'time', 'when somebody called'), $field('visited', 'time', 'first look on site'),
                $field('dug', 'time', 'permit and traffic settled, ground open'), $field('repaired', 'time'), $field('crew', 'text'), $field('cost', 'number', '£'), $field('cancelled', 'yesno'),
                $calculated('call_to_visit', 'days(called, visited)', 'first look on site'), $calculated('visit_to_dig', 'days(visited, dug)', 'permit and traffic'),
                $calculated('dig_to_repair', 'days(dug, repaired)', 'crew on site'), $calculated('call_to_repair', 'days(called, repaired)', 'all steps together'),
            ], 'rows' => self::jobs(...)],
            'CASES' => ['name' => 'Customer cases', 'noun' => 'cases', 'unit' => 'CUS', 'key' => 'case', 'unitField' => null, 'fields' => [
                $field('case', 'text'), $field('customer', 'text', 'account number', true), $field('channel', 'text'), $field('topic', 'text'), $field('opened', 'date'), $field('answered', 'date'),
                $field('contacts', 'number', 'how often somebody had to write or call'), $field('reopened', 'yesno'), $calculated('waited', 'days(opened, answered)', 'until the answer'),
            ], 'rows' => self::cases(...)],
            'INVOICES' => ['name' => 'Invoices to business customers', 'noun' => 'invoices', 'unit' => 'FIN', 'key' => 'invoice', 'unitField' => null, 'fields' => [
                $field('invoice', 'text'), $field('customer', 'text', 'who owes it', true), $field('sector', 'text'), $field('amount', 'number', '£'), $field('issued', 'date'), $field('due', 'date'), $field('paid', 'date'),
                $calculated('overdue', 'days(due, periodEnd)', 'days past due at the end of the period'), $calculated('took', 'days(issued, paid)', 'from the invoice to the money'),
            ], 'rows' => self::invoices(...)],
            'SAMPLES' => ['name' => 'Water samples', 'noun' => 'samples', 'unit' => 'TRT', 'key' => 'sample', 'unitField' => 'works', 'fields' => [
                $field('sample', 'text'), $field('works', 'text'), $field('taken', 'date'), $field('point', 'text', 'where it was taken'), $field('turbidity', 'number', 'NTU'), $field('chlorine', 'number', 'mg/l'), $field('passed', 'yesno'),
            ], 'rows' => self::samples(...)],
            'SCHEMES' => ['name' => 'Schemes with a chance', 'noun' => 'schemes', 'unit' => 'CAP', 'key' => 'scheme', 'unitField' => null, 'fields' => [
                $field('scheme', 'text'), $field('kind', 'text'), $field('amount', 'number', '£, if it is let'), $field('chance', 'number', '% that it is let'), $field('expected', 'date', 'when it is expected to be let'),
                $calculated('weighted', 'amount * chance / 100', '£, by its chance'),
            ], 'rows' => self::schemes(...)],
            'VISITS' => ['name' => 'Safety visits', 'noun' => 'visits', 'unit' => 'OST', 'key' => 'visit', 'unitField' => 'department', 'fields' => [
                $field('visit', 'text'), $field('department', 'text'), $field('day', 'date'), $field('leader', 'text'), $field('findings', 'number', 'things to put right'), $field('announced', 'yesno'),
            ], 'rows' => self::visits(...)],
        ];
    }

    /**
     * KPIs that are counted from them, one for each way of taking a figure.
     *
     * @return list<array{units: list<string>, theme: string, columns: array<string, mixed>, counted: array<string, mixed>, splits: list<array<string, mixed>>, rule: array<string, mixed>|null, target: string|null}>
     */
    public static function kpis(): array
    {
        $level = fn (string $green, string $amber): array => ['reference' => 'none', 'measure' => 'level', 'green' => $green, 'amber' => $amber];
        $target = fn (string $amber): array => ['reference' => 'target', 'measure' => 'percent', 'green' => '0', 'amber' => $amber];
        $leaks = [['of' => 'kind', 'oneOf' => ['burst', 'visible leak']], ['of' => 'cancelled', 'is' => false]];
        $jobs = ['records' => 'JOBS', 'datedBy' => 'repaired', 'unit' => 'zone'];
        $kpi = fn (string $code, string $name, array $units, string $theme, string $measure, int $decimals, string $polarity, string $purpose, array $counted, ?array $rule = null, ?string $target = null, array $splits = [], bool $isScaled = false): array => [
            'units' => $units, 'theme' => $theme, 'counted' => $counted, 'splits' => $splits, 'rule' => $rule, 'target' => $target,
            'columns' => ['code' => $code, 'name' => $name, 'purpose' => $purpose, 'measure' => $measure, 'decimals' => $decimals, 'scaled' => $isScaled, 'polarity' => $polarity, 'level' => count($units) > 1 ? 'operational' : 'departmental', 'kind' => 'records', 'frequency' => 'month'],
        ];

        return [
            $kpi('CALL-REPAIR', 'From a call to a repair', ['NET'], 'Leakage and mains', 'days', 1, 'lower', 'Mean time from the first call about a burst or visible leak to its repair.', [...$jobs, 'take' => 'mean', 'of' => 'call_to_repair', 'where' => $leaks], $target('12'), '4.5',
                [['code' => 'KIND', 'name' => 'by kind', 'of' => 'kind'], ['code' => 'ZONE', 'name' => 'by zone', 'of' => 'zone']]),
            $kpi('REPAIR-SHARE', 'Leaks repaired within 8 days of the call', ['NET', 'Z-FENWICK', 'Z-ALDERMOOR', 'Z-HOLM-BAY'], 'Leakage and mains', '%', 1, 'higher', 'Bursts and visible leaks that were repaired within eight days of the first call.',
                [...$jobs, 'take' => 'share', 'met' => [['of' => 'call_to_repair', 'atMost' => '8']], 'where' => $leaks], $level('80', '70')),
            $kpi('JOBS-OPEN', 'Repair jobs waiting', ['NET'], 'Leakage and mains', 'jobs', 0, 'lower', 'Jobs that had been called in by the end of the month and were not repaired.', [...$jobs, 'take' => 'open', 'datedBy' => 'called', 'until' => 'repaired', 'where' => [['of' => 'cancelled', 'is' => false]]], $level('50', '65'),
                splits: [['code' => 'KIND', 'name' => 'by kind', 'of' => 'kind', 'shares' => ['burst' => '35', 'visible leak' => '30', 'valve' => '20', 'meter' => '15'], 'green' => '5', 'amber' => '10']]),
            $kpi('JOB-COST', 'Cost that nine in ten jobs stay below', ['NET'], 'Money', '£', 0, 'lower', 'The cost of a repair that nine in ten stay below.', [...$jobs, 'take' => 'percentile', 'percentile' => '90', 'of' => 'cost', 'where' => [['of' => 'cancelled', 'is' => false]]], $level('1250', '1350')),
            $kpi('CASE-WAIT', 'Half of the cases answered within', ['CUS'], 'Customers', 'days', 1, 'lower', 'Half of the cases that were answered in the month had waited no longer.', ['records' => 'CASES', 'take' => 'median', 'of' => 'waited', 'datedBy' => 'answered'], $level('5', '7'),
                splits: [['code' => 'WAIT', 'name' => 'by waiting time', 'of' => 'waited', 'bands' => [['upTo' => '2', 'name' => 'within 2 days'], ['upTo' => '5', 'name' => '3 to 5 days'], ['upTo' => '10', 'name' => '6 to 10 days'], ['upTo' => null, 'name' => 'over 10 days']], 'shares' => ['over 10 days' => '10'], 'green' => '5', 'amber' => '10']]),
            $kpi('CASE-PEOPLE', 'Customers with a case', ['CUS'], 'Customers', 'customers', 0, 'lower', 'Different customers who opened a case in the month.', ['records' => 'CASES', 'take' => 'distinct', 'of' => 'customer', 'datedBy' => 'opened'], $target('8'), '300',
                [['code' => 'TOPIC', 'name' => 'by topic', 'of' => 'topic']]),
            $kpi('INVOICE-OPEN', 'Invoices not paid yet', ['FIN'], 'Money', 'invoices', 0, 'lower', 'Invoices to business customers that were issued and not paid at the end of the month.', ['records' => 'INVOICES', 'take' => 'open', 'datedBy' => 'issued', 'until' => 'paid'], $level('300', '318'),
                splits: [
                    ['code' => 'AGE', 'name' => 'by age', 'of' => 'overdue', 'bands' => [['upTo' => '0', 'name' => 'not yet due'], ['upTo' => '30', 'name' => '1 to 30 days'], ['upTo' => '60', 'name' => '31 to 60 days'], ['upTo' => '90', 'name' => '61 to 90 days'], ['upTo' => null, 'name' => 'over 90 days']], 'shares' => ['not yet due' => '65', '1 to 30 days' => '20', '31 to 60 days' => '8', '61 to 90 days' => '4', 'over 90 days' => '3'], 'green' => '4', 'amber' => '8'],
                    ['code' => 'SECTOR', 'name' => 'by sector', 'of' => 'sector'],
                ]),
            $kpi('INVOICE-PAID', 'Money from business customers', ['FIN'], 'Money', '£', 2, 'higher', 'Invoices to business customers that were paid in the month.', ['records' => 'INVOICES', 'take' => 'sum', 'of' => 'amount', 'datedBy' => 'paid'], $target('8'), '640000', [['code' => 'SECTOR', 'name' => 'by sector', 'of' => 'sector']], true),
            $kpi('TURBID-MOST', 'Highest turbidity of a sample', ['TRT', 'W-STONEWELL', 'W-MIREFIELD'], 'Water quality', 'NTU', 2, 'lower', 'The highest turbidity of any sample of final water.', ['records' => 'SAMPLES', 'take' => 'maximum', 'of' => 'turbidity', 'datedBy' => 'taken', 'unit' => 'works', 'where' => [['of' => 'point', 'is' => 'final water']]], $level('0.6', '0.8')),
            $kpi('CHLORINE-LEAST', 'Lowest chlorine at a tap', ['TRT'], 'Water quality', 'mg/l', 2, 'higher', 'The lowest residual of any sample at a tap.', ['records' => 'SAMPLES', 'take' => 'minimum', 'of' => 'chlorine', 'datedBy' => 'taken', 'unit' => 'works', 'where' => [['of' => 'point', 'is' => 'tap']]], $level('0.15', '0.1')),
            $kpi('SCHEMES-WEIGHTED', 'Schemes to be let, by their chance', ['CAP'], 'Projects', '£', 2, 'higher', 'What is expected to be let in the month: each scheme with its chance.', ['records' => 'SCHEMES', 'take' => 'sum', 'of' => 'weighted', 'datedBy' => 'expected'], $target('15'), '1900000', [['code' => 'KIND', 'name' => 'by kind', 'of' => 'kind']], true),
            $kpi('SAFETY-VISITS', 'Safety visits', ['OST', 'NET', 'TRT', 'WST', 'CAP'], 'People', 'visits', 0, 'higher', 'Visits by somebody from another team that look for what could hurt.', ['records' => 'VISITS', 'take' => 'count', 'datedBy' => 'day', 'unit' => 'department'], $level('10', '7')),
        ];
    }

    /** @return array{string, string} from when to when the sets are complete */
    public static function covers(): array
    {
        return [self::FIRST_DAY, self::LAST_DAY];
    }

    /** @return Generator<int, list<string>> */
    private static function jobs(): Generator
    {
        $number = 20_000;
        foreach (self::months() as $index => $month) {
            $winter = cos(2 * M_PI * ($month->monthOfYear() - 1) / 12);
            // The summer of the Fenwick main: more jobs, and crews that are elsewhere.
            $strain = max(0, $index - 25);
            for ($job = 0, $jobs = (int) round(290 + 45 * $winter + 22 * $strain + 25 * self::dice("jobs {$index}")); $job < $jobs; $job++) {
                $number++;
                $kind = self::one("kind {$number}", ['burst' => 34, 'visible leak' => 33, 'valve' => 18, 'meter' => 15]);
                $zone = self::one("zone {$number}", ['Z-FENWICK' => 16 + 5 * $strain] + self::ZONES);
                $called = self::moment($month, "called {$number}", 6, 22);
                $isSlow = $zone === 'Z-FENWICK' ? 1 + 0.16 * $strain : 1 + 0.05 * $strain;
                $visited = self::later($called, self::skewed("visit {$number}", 0.9, 0.55) * $isSlow);
                $dug = self::later($visited, self::skewed("dig {$number}", 1.7, 0.75) * $isSlow + ($kind === 'valve' ? 1.5 : 0));
                $repaired = self::later($dug, self::skewed("repair {$number}", 0.75, 0.45) * $isSlow);
                $isCancelled = self::dice("cancelled {$number}") < 0.02;
                $cost = 180 + 1_300 * self::dice("cost {$number}") ** 2.4 + ($kind === 'burst' ? 260 : 0);
                yield [
                    "J-{$number}", $zone, $kind, self::time($called), self::until($visited), $isCancelled ? '' : self::until($dug), $isCancelled ? '' : self::until($repaired),
                    self::one("crew {$number}", ['East 1' => 4, 'East 2' => 4, 'West 1' => 4, 'West 2' => 3, 'Contractor' => 3]), number_format($cost, 2, '.', ''), $isCancelled ? 'true' : 'false',
                ];
            }
        }
    }

    /** @return Generator<int, list<string>> */
    private static function cases(): Generator
    {
        $number = 50_000;
        foreach (self::months() as $index => $month) {
            for ($case = 0, $cases = (int) round(310 - 1.2 * $index + 30 * self::dice("cases {$index}") + ($index >= 26 ? 35 : 0)); $case < $cases; $case++) {
                $number++;
                $opened = self::moment($month, "opened {$number}", 0, 1);
                $topic = self::one("topic {$number}", ['billing' => 38, 'no water' => 14, 'pressure' => 11, 'taste and odour' => 9 + ($index >= 26 ? 7 : 0), 'works in the street' => 13, 'moving house' => 15]);
                $answered = self::later($opened, round(self::skewed("answer {$number}", $topic === 'billing' ? 6.4 : 4.6, 0.8)));
                yield [
                    "C-{$number}", 'A-'.(700_000 + (int) (self::dice("customer {$number}") * 4_000)), self::one("channel {$number}", ['phone' => 45, 'web' => 38, 'letter' => 9, 'social' => 8]), $topic,
                    $opened->format('Y-m-d'), $answered->format('Y-m-d') > self::LAST_DAY ? '' : $answered->format('Y-m-d'), (string) (1 + (int) (self::dice("contacts {$number}") ** 3 * 6)), self::dice("again {$number}") < 0.06 ? 'true' : 'false',
                ];
            }
        }
    }

    /** @return Generator<int, list<string>> */
    private static function invoices(): Generator
    {
        $number = 80_000;
        foreach (self::months() as $index => $month) {
            for ($invoice = 0, $invoices = (int) round(255 + 20 * self::dice("invoices {$index}")); $invoice < $invoices; $invoice++) {
                $number++;
                $issued = self::moment($month, "issued {$number}", 0, 1);
                $sector = self::one("sector {$number}", ['food and drink' => 24, 'manufacturing' => 19, 'hospitality' => 21, 'farming' => 15, 'public' => 21]);
                $isLate = self::dice("late {$number}") < 0.24 + ($sector === 'hospitality' ? 0.08 : 0);
                $paid = self::later($issued, round($isLate ? 34 + self::skewed("paid {$number}", 28, 0.8) : 12 + 22 * self::dice("prompt {$number}")));
                yield [
                    "I-{$number}", 'B-'.(3_000 + (int) (self::dice("debtor {$number}") * 380)), $sector, number_format(240 + 9_000 * self::dice("amount {$number}") ** 3, 2, '.', ''),
                    $issued->format('Y-m-d'), self::later($issued, 30)->format('Y-m-d'), $paid->format('Y-m-d') > self::LAST_DAY ? '' : $paid->format('Y-m-d'),
                ];
            }
        }
    }

    /** @return Generator<int, list<string>> */
    private static function samples(): Generator
    {
        $number = 10_000;
        foreach (self::months() as $index => $month) {
            foreach (self::WORKS as $works) {
                for ($sample = 0; $sample < 24; $sample++) {
                    $number++;
                    $isTap = $sample % 3 === 2;
                    $turbidity = 0.05 + 0.42 * self::dice("ntu {$number}") ** 3 + ($works === 'W-STONEWELL' && $index >= 27 ? 0.22 * self::dice("storm {$number}") : 0);
                    $chlorine = 0.16 + 0.5 * self::dice("cl {$number}") ** 0.7;
                    yield [
                        "S-{$number}", $works, self::moment($month, "taken {$number}", 0, 1)->format('Y-m-d'), $isTap ? 'tap' : 'final water', $isTap ? '' : number_format($turbidity, 3, '.', ''), number_format($chlorine, 2, '.', ''),
                        $turbidity < 0.6 ? 'true' : 'false',
                    ];
                }
            }
        }
    }

    /** @return Generator<int, list<string>> */
    private static function schemes(): Generator
    {
        $number = 400;
        foreach (self::months() as $index => $month) {
            for ($scheme = 0, $schemes = (int) round(7 + 4 * self::dice("schemes {$index}")); $scheme < $schemes; $scheme++) {
                $number++;
                yield [
                    "P-{$number}", self::one("scheme {$number}", ['mains renewal' => 40, 'works' => 25, 'pumping' => 20, 'reservoir' => 15]), (string) (60_000 + 5_000 * (int) (110 * self::dice("worth {$number}") ** 1.6)),
                    (string) self::one("chance {$number}", ['25' => 2, '50' => 3, '75' => 3, '90' => 2]), self::moment($month, "let {$number}", 0, 1)->format('Y-m-d'),
                ];
            }
        }
    }

    /** @return Generator<int, list<string>> */
    private static function visits(): Generator
    {
        $number = 1_000;
        foreach (self::months() as $index => $month) {
            foreach (['NET' => 13, 'TRT' => 12, 'WST' => 11, 'CAP' => 10, 'CUS' => 3, 'FIN' => 1] as $department => $usual) {
                for ($visit = 0, $visits = (int) round($usual - 3 + 6 * self::dice("visits {$department} {$index}") - ($department === 'WST' && $index > 26 ? 3 : 0)); $visit < $visits; $visit++) {
                    $number++;
                    yield [
                        "V-{$number}", $department, self::moment($month, "visit {$number}", 0, 1)->format('Y-m-d'), self::one("leader {$number}", ['A. Menon' => 3, 'G. Ferrant' => 3, 'N. Brook' => 3, 'O. Tarrant' => 4]),
                        (string) (int) (self::dice("findings {$number}") ** 1.7 * 7), self::dice("announced {$number}") < 0.4 ? 'true' : 'false',
                    ];
                }
            }
        }
    }

    /** @return list<Period> */
    private static function months(): array
    {
        return Period::parse(self::FIRST_MONTH)->to(Period::parse(Story::LAST_MONTH));
    }

    /** From 0 to 1, always the same for the same throw. */
    private static function dice(string $throw): float
    {
        return hexdec(substr(md5($throw), 0, 7)) / 0xFFFFFFF;
    }

    /** @param  array<array-key, int>  $weights */
    private static function one(string $throw, array $weights): string
    {
        $left = self::dice($throw) * array_sum($weights);
        foreach ($weights as $each => $weight) {
            $left -= $weight;
            if ($left <= 0) {
                return (string) $each;
            }
        }

        return (string) array_key_last($weights);
    }

    /** A duration about a middle, some much longer: as repairs and answers take. */
    private static function skewed(string $throw, float $middle, float $spread): float
    {
        // The sum of dice is near to a bell, and its power to what durations look like.
        $bell = self::dice("{$throw} a") + self::dice("{$throw} b") + self::dice("{$throw} c") + self::dice("{$throw} d") - 2;

        return $middle * exp($spread * $bell * 1.7);
    }

    private static function moment(Period $month, string $throw, int $from, int $to): DateTimeImmutable
    {
        $first = new DateTimeImmutable("{$month->key()}-01T00:00:00Z");
        $day = (int) (self::dice($throw) * (int) $first->format('t'));

        return $first->modify("+{$day} days")->setTime($from + (int) (self::dice("{$throw} hour") * ($to - $from)), (int) (self::dice("{$throw} minute") * ($to - $from > 1 ? 60 : 1)));
    }

    private static function later(DateTimeImmutable $moment, float $days): DateTimeImmutable
    {
        return $moment->modify('+'.(int) round($days * 1_440).' minutes');
    }

    private static function time(DateTimeImmutable $moment): string
    {
        return $moment->format('Y-m-d\TH:i:s\Z');
    }

    /** What lies after the last day is not known yet. */
    private static function until(DateTimeImmutable $moment): string
    {
        return $moment->format('Y-m-d') > self::LAST_DAY ? '' : self::time($moment);
    }
}
