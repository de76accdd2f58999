<?php

declare(strict_types=1);

use Kybernet\Core\Calendar\Span;
use Kybernet\Core\Workbook\AssessmentWriter;
use Kybernet\Core\Workbook\Problems;
use Kybernet\Core\Workbook\SchemaCheck;
use Kybernet\Core\Workbook\WorkbookWriter;

use function Kybernet\Core\Tests\assessed;
use function Kybernet\Core\Tests\book;
use function Kybernet\Core\Tests\kpi;
use function Kybernet\Core\Tests\month;
use function Kybernet\Core\Tests\problems;
use function Kybernet\Core\Tests\reader;
use function Kybernet\Core\Tests\rows;

/* Records: a KPI counted from records, as a workbook has it. */

/** @param  list<list<string|bool|null>>  $rows  key, zone, reported, repaired, cost */
function jobSet(array $rows, array $members = []): array
{
    return [...[
        'code' => 'JOBS', 'name' => 'Repair jobs', 'key' => 'job', 'covers' => ['from' => '2024-04-01', 'to' => '2026-08-31'],
        'fields' => [
            ['name' => 'job', 'type' => 'text'], ['name' => 'zone', 'type' => 'text'], ['name' => 'reported', 'type' => 'date'], ['name' => 'repaired', 'type' => 'date'],
            ['name' => 'cost', 'type' => 'number'], ['name' => 'took', 'expression' => 'days(reported, repaired)'],
        ],
        'unitNames' => ['OLD' => 'A'],
        'rows' => $rows,
    ], ...$members];
}

/** @param  array<string, mixed>  $counted */
function countedKpi(array $counted, array $members = []): array
{
    return [...array_diff_key(kpi('JOB', ['kind' => 'records', 'counted' => ['records' => 'JOBS', 'datedBy' => 'repaired', 'unit' => 'zone', ...$counted]]), ['accumulation' => '']), ...$members];
}

/** @param  array<string, mixed>  $counted */
function jobBook(array $rows, array $counted, array $set = [], array $members = [], array $parts = []): array
{
    return book([
        'units' => [['code' => 'ORG', 'name' => 'Whole'], ['code' => 'A', 'name' => 'A', 'parent' => 'ORG'], ['code' => 'B', 'name' => 'B', 'parent' => 'ORG']],
        'recordSets' => [jobSet($rows, $set)],
        'kpis' => [countedKpi($counted, ['units' => [['unit' => 'ORG'], ['unit' => 'A']], ...$members])],
        ...$parts,
    ]);
}

/** @return array<string, mixed> what is said of a span of ORG */
function spanOf(array $book, string $span = 'month', string $month = '2026-08'): array
{
    return assessed($book, $month)['assessments']['JOB ORG']['spans'][$span];
}

/** Five jobs of July and August; one has no cost, one names no unit that there is, one is not repaired yet. */
const ROWS = [
    ['1', 'A', '2026-06-30', '2026-07-02', '10'], ['2', 'OLD', '2026-07-20', '2026-08-04', '20.5'], ['3', 'B', '2026-08-01', '2026-08-03', '40'],
    ['4', 'B', '2026-08-10', '2026-08-31', null], ['5', 'NOWHERE', '2026-08-10', '2026-08-12', '99'], ['6', 'A', '2026-08-30', null, '5'],
];

it('takes a figure of the records of a period, and of a longer span again', function (array $counted, ?string $month, ?string $yearToDate) {
    $book = jobBook(ROWS, $counted);
    expect([spanOf($book)['actual'], spanOf($book, 'yearToDate')['actual']])->toBe([$month, $yearToDate]);
})->with([
    'count' => [['take' => 'count'], '3', '4'],
    'distinct' => [['take' => 'distinct', 'of' => 'zone'], '2', '3'],
    'sum, without what has no value' => [['take' => 'sum', 'of' => 'cost'], '60.5', '70.5'],
    'mean' => [['take' => 'mean', 'of' => 'cost'], '30.25', '23.5'],
    'minimum' => [['take' => 'minimum', 'of' => 'cost'], '20.5', '10'],
    'maximum' => [['take' => 'maximum', 'of' => 'took'], '21', '21'],
    'median' => [['take' => 'median', 'of' => 'took'], '15', '8.5'],
    'percentile' => [['take' => 'percentile', 'percentile' => '90', 'of' => 'took'], '19.8', '19.2'],
    'share' => [['take' => 'share', 'met' => [['of' => 'took', 'atMost' => '5']]], '33.333333333333', '50'],
    'share: nothing is not met, and counts' => [['take' => 'share', 'met' => [['of' => 'cost', 'moreThan' => '30']]], '33.333333333333', '25'],
    'open at the end of the period' => [['take' => 'open', 'datedBy' => 'reported', 'until' => 'repaired'], '1', '1'],
    'an age at the end of the period' => [['take' => 'mean', 'of' => 'days(repaired, periodEnd)'], '18.333333333333', '28.75'],
    'only where' => [['take' => 'count', 'where' => [['of' => 'cost', 'atLeast' => '20'], ['any' => [['of' => 'zone', 'is' => 'B'], ['of' => 'took', 'is' => '1']]]]], '1', '1'],
]);

it('counts the records of the unit and those below it, by code before another name', function () {
    $answer = assessed(jobBook(ROWS, ['take' => 'count']))['assessments'];
    expect([$answer['JOB ORG']['spans']['month']['actual'], $answer['JOB A']['spans']['month']['actual']])->toBe(['3', '1']);
    $all = assessed(jobBook(ROWS, ['take' => 'count', 'unit' => null]))['assessments'];
    expect([$all['JOB ORG']['spans']['month']['actual'], $all['JOB A']['spans']['month']['actual']])->toBe(['4', '4']);
    $named = assessed(jobBook(ROWS, ['take' => 'count'], ['unitNames' => ['A' => 'B', 'OLD' => 'B']]))['assessments'];
    expect($named['JOB A']['spans']['month']['actual'])->toBe('0');
});

it('knows none from not known', function (array $counted, array $rows, ?array $covers, string $month, array $expected) {
    $book = jobBook($rows, $counted, ['covers' => $covers]);
    $span = spanOf($book, 'month', $month);
    expect([$span['actual'], $span['expected'], $span['reported'], $span['missing'] === [] ? '' : 'missing'])->toBe($expected);
})->with(function () {
    $covers = ['from' => '2026-06-15', 'to' => '2026-09-15'];
    $cost = ['take' => 'mean', 'of' => 'cost'];

    return [
        'inside, nothing: nought of a count' => [['take' => 'count'], [], $covers, '2026-08', ['0', 1, 1, '']],
        'inside, nothing: nought of a sum' => [['take' => 'sum', 'of' => 'cost'], [], $covers, '2026-08', ['0', 1, 1, '']],
        'inside, nothing: no mean, and none expected' => [$cost, [], $covers, '2026-08', [null, 0, 0, '']],
        'inside, only empty values: a sum is missing' => [['take' => 'sum', 'of' => 'cost'], [['1', 'A', null, '2026-08-01', null]], $covers, '2026-08', [null, 1, 0, 'missing']],
        'inside, only empty values: no mean' => [$cost, [['1', 'A', null, '2026-08-01', null]], $covers, '2026-08', [null, 0, 0, '']],
        'begins before: none expected, even with records' => [['take' => 'count'], [['1', 'A', null, '2026-06-20', '1']], $covers, '2026-06', [null, 0, 0, '']],
        'ends after: provisional where there are records' => [['take' => 'count'], [['1', 'A', null, '2026-09-02', '1']], $covers, '2026-09', ['1', 1, 1, '']],
        'ends after, nothing: missing' => [['take' => 'count'], [], $covers, '2026-09', [null, 1, 0, 'missing']],
        'wholly after, nothing: missing' => [$cost, [], $covers, '2026-10', [null, 1, 0, 'missing']],
        'covered from its first day to its last' => [['take' => 'count'], [], ['from' => '2026-08-01', 'to' => '2026-08-31'], '2026-08', ['0', 1, 1, '']],
        'covered from the day after its first' => [['take' => 'count'], [], ['from' => '2026-08-02', 'to' => '2026-08-31'], '2026-08', [null, 0, 0, '']],
        'covered to the day before its last' => [['take' => 'count'], [], ['from' => '2026-08-01', 'to' => '2026-08-30'], '2026-08', [null, 1, 0, 'missing']],
        'not said: missing without records' => [['take' => 'count'], [], null, '2026-08', [null, 1, 0, 'missing']],
        'one end says nothing' => [['take' => 'count'], [], ['from' => '2020-01-01'], '2026-08', [null, 1, 0, 'missing']],
        'not said: a figure with records' => [['take' => 'count'], [['1', 'A', null, '2026-08-01', '1']], null, '2026-08', ['1', 1, 1, '']],
        'open: where the last day is covered' => [['take' => 'open', 'datedBy' => 'reported', 'until' => 'repaired'], [], $covers, '2026-06', ['0', 1, 1, '']],
        'open: not where it is not' => [['take' => 'open', 'datedBy' => 'reported', 'until' => 'repaired'], [['1', 'A', '2026-09-01', null, null]], $covers, '2026-09', [null, 1, 0, 'missing']],
        'open: from the first record of the set' => [['take' => 'open', 'datedBy' => 'reported', 'until' => 'repaired'], [['1', 'NOWHERE', '2026-07-20', '2026-08-02', null]], null, '2026-07', ['0', 1, 1, '']],
        'open: to the latest date of any' => [['take' => 'open', 'datedBy' => 'reported', 'until' => 'repaired'], [['1', 'A', '2026-07-20', null, null], ['2', 'B', null, '2026-08-02', null]], null, '2026-08', ['1', 1, 1, '']],
        'open: not beyond' => [['take' => 'open', 'datedBy' => 'reported', 'until' => 'repaired'], [['1', 'A', '2026-07-20', null, null]], null, '2026-08', [null, 1, 0, 'missing']],
        'open: not before' => [['take' => 'open', 'datedBy' => 'reported', 'until' => 'repaired'], [['1', 'A', '2026-07-20', null, null]], null, '2026-06', [null, 1, 0, 'missing']],
    ];
});

it('is not judged where nothing was to be counted, and missing is told where a feed died', function () {
    $idle = assessed(jobBook([], ['take' => 'mean', 'of' => 'cost']));
    expect($idle['assessments']['JOB ORG']['spans']['month'])->toMatchArray(['status' => 'not-judged', 'expected' => 0])->and($idle['exceptions'])->toBe([]);
    $dead = assessed(jobBook([], ['take' => 'mean', 'of' => 'cost'], ['covers' => ['from' => '2024-04-01', 'to' => '2026-07-31']]));
    expect($dead['assessments']['JOB ORG']['spans']['month']['status'])->toBe('no-data')
        ->and(array_column($dead['exceptions'][0]['reasons'], 'code'))->toContain('missing');
});

it('waits for nothing where there was nothing: the prior year is full, a formula over it is not expected', function () {
    // A record in each month of this year so far and last year but in November.
    $rows = [];
    foreach ([...range(0, 6), ...range(8, 16)] as $place) {
        $rows[] = [(string) $place, 'A', null, month('2025-04')->plus($place)->key().'-10', $place < 12 ? '10' : '20'];
    }
    $kpis = fn (string $formula): array => ['kpis' => [countedKpi(['take' => 'mean', 'of' => 'cost']), kpi('OVER', ['kind' => 'formula', 'formula' => $formula, 'accumulation' => 'mean']), kpi('PLAIN')], 'readings' => rows('PLAIN', '2025-04', array_fill(0, 17, '1'))];
    $book = [...jobBook($rows, []), ...$kpis('JOB + PLAIN')];
    $projection = assessed($book)['assessments']['JOB ORG']['projection'];
    expect([$projection['method'], $projection['value']])->toBe(['seasonal', '20']);
    expect(assessed($book, '2025-11')['assessments']['OVER ORG']['spans']['month'])->toMatchArray(['expected' => 0, 'status' => 'not-judged'])
        ->and(assessed([...$book, ...$kpis('orzero(JOB) + PLAIN')], '2025-11')['assessments']['OVER ORG']['spans']['month'])->toMatchArray(['expected' => 1, 'actual' => '1']);
    // What begins before the records do is not known: the prior year is not full.
    $book['recordSets'][0]['covers']['from'] = '2025-05-02';
    expect(assessed($book)['assessments']['JOB ORG']['projection']['method'])->toBe('run-rate');
});

it('is expected over units where one of them is expected', function (?string $to, int $expected) {
    $kpi = countedKpi(['take' => 'mean', 'of' => 'cost'], ['gather' => ['method' => 'mean'], 'units' => [['unit' => 'ORG', 'gathered' => true], ['unit' => 'A'], ['unit' => 'B']]]);
    $book = [...jobBook([], [], $to === null ? [] : ['covers' => ['from' => '2024-04-01', 'to' => $to]]), 'kpis' => [$kpi]];
    expect(spanOf($book))->toMatchArray(['expected' => $expected, 'actual' => null]);
})->with(['nothing in any' => [null, 0], 'missing in all' => ['2026-08-30', 1]]);

it('judges a part on its very limits by the better colour', function (string $share, string $status) {
    // Half of the records is in each part.
    $rows = [['1', 'A', null, '2026-08-01', null], ['2', 'B', null, '2026-08-02', null]];
    $splits = ['splits' => [['code' => 'S', 'name' => 'by it', 'of' => 'zone', 'shares' => ['A' => $share], 'green' => '5', 'amber' => '10']]];
    expect(array_column(partsOf(jobBook($rows, ['take' => 'count'], [], $splits), 'S'), 'status', 'part')['A'])->toBe($status);
})->with([['45', 'green'], ['55', 'green'], ['44.99999999', 'amber'], ['40', 'amber'], ['60', 'amber'], ['39.99999999', 'red'], ['60.00000001', 'red']]);

it('is taken again of the records of a span for a formula that is recomputed', function () {
    $kpis = ['kpis' => [countedKpi(['take' => 'mean', 'of' => 'cost']), kpi('RATIO', ['kind' => 'formula', 'formula' => 'JOB / PLAIN', 'accumulation' => 'recompute']), kpi('PLAIN', ['accumulation' => 'sum'])], 'readings' => rows('PLAIN', '2026-07', ['1', '1'])];
    // 70.5 ÷ 3 over two, not the mean of 10 and 30.25.
    expect(assessed([...jobBook(ROWS, []), ...$kpis])['assessments']['RATIO ORG']['spans']['quarter']['actual'])->toBe('11.75');
});

it('has no projection of how many different ones there are', function () {
    expect(assessed(jobBook(ROWS, ['take' => 'distinct', 'of' => 'zone']))['assessments']['JOB ORG']['projection'])->toBeNull()
        ->and(assessed(jobBook(ROWS, ['take' => 'count']))['assessments']['JOB ORG']['projection'])->not->toBeNull();
});

it('lets a figure by hand stand over the counted one; its span is gathered from figures then', function () {
    $hand = ['readings' => [['kpi' => 'JOB', 'unit' => 'ORG', 'period' => '2026-07', 'actual' => '100']]];
    $book = jobBook(ROWS, ['take' => 'mean', 'of' => 'cost'], [], [], $hand);
    expect([spanOf($book, 'month', '2026-07')['actual'], spanOf($book, 'quarter')['actual']])->toBe(['100', '65.125']);
});

it('puts a time into the period of its local date', function (string $zone, string $expected) {
    $set = ['fields' => [['name' => 'job', 'type' => 'text'], ['name' => 'zone', 'type' => 'text'], ['name' => 'reported', 'type' => 'date'], ['name' => 'repaired', 'type' => 'time'], ['name' => 'cost', 'type' => 'number']]];
    $book = jobBook([['1', 'A', null, '2026-08-31T23:30:00Z', '1']], ['take' => 'count'], $set);
    $book['calendar']['timeZone'] = $zone;
    expect(spanOf($book)['actual'])->toBe($expected);
})->with([['UTC', '1'], ['Europe/London', '0'], ['America/New_York', '1']]);

it('counts by the week, the quarter and the year', function (string $frequency, string $month, string $expected) {
    $book = jobBook([['1', 'A', null, '2026-03-30', '1'], ['2', 'A', null, '2026-04-05', '1'], ['3', 'A', null, '2026-04-06', '1']], ['take' => 'count'], [], ['frequency' => $frequency]);
    expect(spanOf($book, $frequency === 'week' ? 'month' : 'yearToDate', $month)['actual'])->toBe($expected);
})->with([
    // The week of 30 March to 5 April counts in the month of its Thursday, 2 April.
    ['week', '2026-04', '3'], ['week', '2026-03', '0'], ['quarter', '2026-06', '2'], ['year', '2027-03', '2'],
]);

/** @return list<array<string, mixed>> the parts on the span of a month */
function partsOf(array $book, string $split, string $span = 'month'): array
{
    $text = implode('', iterator_to_array((new AssessmentWriter(reader()->read(json_encode($book, JSON_THROW_ON_ERROR)), month('2026-08'), Span::Month, true))->json(), false));
    $problems = new Problems;
    (new SchemaCheck(json_decode((string) file_get_contents(__DIR__.'/../../../docs/formats/assessment.schema.json')), 'urn:kybernet:assessment:1'))->check(json_decode($text), '', '', $problems);
    expect($problems->all())->toBe([]);
    $splits = json_decode($text, true)['assessments'][0]['splits'];

    return array_column($splits, 'spans', 'split')[$split][$span];
}

it('splits by a field, by bands, by unit, with shares that parts should have', function () {
    $part = fn (?string $part, ?string $actual, ?string $share, ?string $target = null, string $status = 'not-judged'): array => compact('part', 'actual', 'share', 'target', 'status');
    $splits = fn (array $split): array => ['splits' => [['code' => 'S', 'name' => 'by it', ...$split]]];
    $count = fn (array $split): array => partsOf(jobBook(ROWS, ['take' => 'count'], [], $splits($split)), 'S');
    expect($count(['of' => 'zone']))->toBe([$part('B', '2', '66.666666666667'), $part('A', '1', '33.333333333333')])
        ->and($count(['of' => 'cost']))->toBe([$part('20.5', '1', '33.333333333333'), $part('40', '1', '33.333333333333'), $part(null, '1', '33.333333333333')])
        ->and($count(['of' => 'took', 'bands' => [['upTo' => '2', 'name' => 'quick'], ['upTo' => '15', 'name' => 'slow']]]))->toBe([$part('quick', '1', '33.333333333333'), $part('slow', '1', '33.333333333333'), $part(null, '1', '33.333333333333')])
        ->and($count(['of' => 'zone', 'shares' => ['A' => '30', 'C' => '5', 'B' => '60'], 'green' => '5', 'amber' => '6.7']))->toBe([
            $part('B', '2', '66.666666666667', '60', 'amber'), $part('A', '1', '33.333333333333', '30', 'green'), $part('C', '0', '0', '5', 'green'),
        ]);
    // Of a mean a part's share is that of its records.
    expect(partsOf(jobBook(ROWS, ['take' => 'mean', 'of' => 'cost'], [], $splits(['of' => 'zone', 'shares' => ['C' => '0'], 'green' => '1', 'amber' => '2'])), 'S', 'yearToDate'))
        ->toBe([$part('B', '40', '33.333333333333'), $part('A', '15.25', '66.666666666667'), $part('C', null, '0', '0', 'green')]);
});

it('has shares of nothing where the whole is nothing, and parts without a figure where the span has none', function () {
    $splits = ['splits' => [['code' => 'S', 'name' => 'by it', 'of' => 'zone', 'shares' => ['A' => '100'], 'green' => '5', 'amber' => '10']]];
    expect(partsOf(jobBook([], ['take' => 'count'], [], $splits), 'S'))->toBe([['part' => 'A', 'actual' => '0', 'share' => null, 'target' => '100', 'status' => 'no-data']])
        ->and(partsOf(jobBook([], ['take' => 'count'], ['covers' => null], $splits), 'S'))->toBe([['part' => 'A', 'actual' => null, 'share' => null, 'target' => '100', 'status' => 'no-data']]);
});

it('shows typed parts with their share of their sum', function () {
    $book = book(['kpis' => [kpi('JOB', ['accumulation' => 'sum', 'parts' => ['burst', 'leak', '7']])], 'readings' => [
        ['kpi' => 'JOB', 'unit' => 'ORG', 'period' => '2026-08', 'parts' => ['burst' => '12', 'leak' => '4']],
        ['kpi' => 'JOB', 'unit' => 'ORG', 'period' => '2026-07', 'actual' => '2', 'parts' => ['7' => '2']],
    ]]);
    expect(spanOf($book)['actual'])->toBe('16')->and(array_map(fn (array $part): array => [$part['part'], $part['actual'], $part['share']], partsOf($book, 'parts', 'quarter')))
        ->toBe([['burst', '12', '66.666666666667'], ['leak', '4', '22.222222222222'], ['7', '2', '11.111111111111']]);
    $back = implode('', iterator_to_array(WorkbookWriter::json(reader()->read(json_encode($book, JSON_THROW_ON_ERROR))), false));
    expect(implode('', iterator_to_array(WorkbookWriter::json(reader()->read($back)), false)))->toBe($back)->and($back)->toContain('"parts":{"7":"2"}');
});

it('comes out of a workbook as it went in', function () {
    $book = jobBook(ROWS, ['take' => 'share', 'met' => [['of' => 'took', 'atMost' => '5']], 'where' => [['any' => [['of' => 'zone', 'is' => 'A'], ['of' => 'cost', 'empty' => true]]]]], [], [
        'splits' => [['code' => 'AGE', 'name' => 'by age', 'of' => 'took', 'bands' => [['upTo' => '5', 'name' => 'in time'], ['upTo' => null, 'name' => 'late']], 'shares' => ['in time' => '90'], 'green' => '5', 'amber' => '10']],
    ]);
    $book['calendar']['timeZone'] = 'Europe/London';
    $once = implode('', iterator_to_array(WorkbookWriter::json(reader()->read(json_encode($book, JSON_THROW_ON_ERROR))), false));
    $members = json_decode($once, true);
    expect($members['recordSets'][0])->toEqual(jobSet(ROWS))->and($members['kpis'][0]['counted'])->toEqual(array_filter($book['kpis'][0]['counted'], fn ($member) => $member !== null))
        ->and($members['kpis'][0]['splits'])->toEqual($book['kpis'][0]['splits'])->and($members['calendar'])->toBe(['yearStartMonth' => 4, 'timeZone' => 'Europe/London'])
        ->and(implode('', iterator_to_array(WorkbookWriter::json(reader()->read($once)), false)))->toBe($once);
});

it('is refused with what is wrong and where', function (array $book, string $problem) {
    expect(implode("\n", problems($book)))->toContain($problem);
})->with(function () {
    $count = ['take' => 'count'];
    $split = fn (array $split): array => jobBook(ROWS, $count, [], ['splits' => [['code' => 'S', 'name' => 'S', 'of' => 'zone', ...$split]]]);

    return [
        'no such set' => [jobBook(ROWS, ['records' => 'CASES', ...$count]), '/kpis/0/counted/records unknown-records'],
        'not said how' => [jobBook(ROWS, [], [], ['counted' => null]), '/kpis/0 missing-member'],
        'an accumulation of its own' => [jobBook(ROWS, $count, [], ['accumulation' => 'sum']), '/kpis/0/accumulation not-allowed'],
        'a formula' => [jobBook(ROWS, $count, [], ['formula' => 'A']), '/kpis/0/formula not-allowed'],
        'values of a count' => [jobBook(ROWS, ['of' => 'cost', ...$count]), '/kpis/0/counted/of not-allowed'],
        'no values of a sum' => [jobBook(ROWS, ['take' => 'sum']), '/kpis/0/counted missing-member'],
        'a sum of text' => [jobBook(ROWS, ['take' => 'sum', 'of' => 'zone']), '/kpis/0/counted/of not-allowed'],
        'no percentile' => [jobBook(ROWS, ['take' => 'percentile', 'of' => 'cost']), '/kpis/0/counted missing-member'],
        'a percentile beyond' => [jobBook(ROWS, ['take' => 'percentile', 'of' => 'cost', 'percentile' => '101']), '/kpis/0/counted/percentile out-of-range'],
        'a share of nothing' => [jobBook(ROWS, ['take' => 'share', 'met' => []]), '/kpis/0/counted/met missing-member'],
        'dated by a number' => [jobBook(ROWS, ['take' => 'count', 'datedBy' => 'cost']), '/kpis/0/counted/datedBy not-allowed'],
        'dated by a calculated field' => [jobBook(ROWS, ['take' => 'count', 'datedBy' => 'took']), '/kpis/0/counted/datedBy unknown-field'],
        'open without an end' => [jobBook(ROWS, ['take' => 'open']), '/kpis/0/counted missing-member'],
        'a condition on no field' => [jobBook(ROWS, ['where' => [['of' => 'colour', 'is' => 'x']], ...$count]), '/kpis/0/counted/where/0/of formula'],
        'an operator that is none' => [jobBook(ROWS, ['where' => [['of' => 'cost', 'above' => '1']], ...$count]), '/kpis/0/counted/where/0/above unknown-member'],
        'bands out of order' => [$split(['of' => 'cost', 'bands' => [['upTo' => '5', 'name' => 'a'], ['upTo' => '5', 'name' => 'b']]]), '/kpis/0/splits/0/bands/1/upTo limits'],
        'bands of text' => [$split(['bands' => [['upTo' => '5', 'name' => 'a']]]), '/kpis/0/splits/0/bands not-allowed'],
        'shares without limits' => [$split(['shares' => ['A' => '50']]), '/kpis/0/splits/0 missing-member'],
        'limits upside down' => [$split(['shares' => ['A' => '50'], 'green' => '10', 'amber' => '5']), '/kpis/0/splits/0/amber limits'],
        'a share beyond' => [$split(['shares' => ['A' => '150'], 'green' => '1', 'amber' => '5']), '/kpis/0/splits/0/shares/A out-of-range'],
        'a split called as typed parts are' => [$split(['code' => 'parts']), '/kpis/0/splits/0/code duplicate'],
        'a row too short' => [jobBook([['1', 'A']], $count), '/recordSets/0/rows/0 wrong-type'],
        'no date' => [jobBook([['1', 'A', '2026-02-30', null, null]], $count), '/recordSets/0/rows/0/2 malformed'],
        'a number as a number' => [jobBook([['1', 'A', null, null, 5]], $count), '/recordSets/0/rows/0/4 wrong-type'],
        'the same key' => [jobBook([['1', 'A', null, null, null], ['1', 'B', null, null, null]], $count), '/recordSets/0/rows/1 duplicate'],
        'no key' => [jobBook([[' ', 'A', null, null, null]], $count), '/recordSets/0/rows/0 missing-member'],
        'names of no unit' => [jobBook(ROWS, $count, ['unitNames' => ['OLD' => 'Z']]), '/recordSets/0/unitNames/OLD unknown-unit'],
        'covers upside down' => [jobBook(ROWS, $count, ['covers' => ['from' => '2026-02-01', 'to' => '2026-01-01']]), '/recordSets/0/covers/to limits'],
        'no zone' => [[...jobBook(ROWS, $count), 'calendar' => ['yearStartMonth' => 4, 'timeZone' => 'Middle/Earth']], '/calendar/timeZone malformed'],
        'parts of a counted one' => [jobBook(ROWS, $count, [], ['parts' => ['a']]), '/kpis/0/parts not-allowed'],
        'parts that do not add up' => [book(['kpis' => [kpi('JOB', ['parts' => ['a', 'b']])], 'readings' => [['kpi' => 'JOB', 'unit' => 'ORG', 'period' => '2026-08', 'actual' => '5', 'parts' => ['a' => '1', 'b' => '3']]]]), '/readings/0/actual sum'],
        'a part that is none' => [book(['kpis' => [kpi('JOB', ['parts' => ['a']])], 'readings' => [['kpi' => 'JOB', 'unit' => 'ORG', 'period' => '2026-08', 'parts' => ['c' => '1']]]]), '/readings/0/parts/c not-allowed'],
    ];
});
