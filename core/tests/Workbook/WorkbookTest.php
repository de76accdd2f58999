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

function fixture(): string
{
    return (string) file_get_contents(__DIR__.'/../Fixtures/everything.json');
}

function text(iterable $pieces): string
{
    $text = '';
    foreach ($pieces as $piece) {
        $text .= $piece;
    }

    return $text;
}

it('writes what it has read', function () {
    expect(text(WorkbookWriter::json(reader()->read(fixture()))))->toBe(fixture());
});

it('assesses everything in the form of its schema, twice with the same bytes', function (string $month) {
    $write = fn (string $json): string => text((new AssessmentWriter(reader()->read($json), month($month), Span::YearToDate))->json());
    $text = $write(fixture());
    $problems = new Problems;
    $schema = json_decode((string) file_get_contents(__DIR__.'/../../../docs/formats/assessment.schema.json'));
    (new SchemaCheck($schema, 'urn:kybernet:assessment:1'))->check(json_decode($text), '', '', $problems);

    expect($problems->all())->toBe([])->and($write(fixture()))->toBe($text);
})->with(['2026-08', '2024-03', '2027-03', '1999-12']);

it('depends neither on the order of figures nor on how the file is laid out', function () {
    $book = json_decode(fixture(), true);
    $plain = assessed($book);
    $turned = [...$book, 'readings' => array_reverse($book['readings']), 'targets' => array_reverse($book['targets'])];

    expect(assessed(array_reverse($turned, true)))->toBe($plain)
        ->and(problems(json_encode($book, JSON_PRETTY_PRINT)))->toBe([])
        ->and(problems("\u{FEFF}".fixture()))->toBe([]);
});

it('takes what is left out for its default', function () {
    $short = book(['kpis' => [kpi('K')], 'readings' => rows('K', '2026-08', ['85'])]);
    $long = book([
        'units' => [['code' => 'ORG', 'name' => 'Organisation', 'parent' => null, 'weight' => 1, 'rollUp' => ['method' => 'weighted', 'green' => '1.5', 'amber' => '0.5']]],
        'kpis' => [kpi('K', [
            'kind' => 'entered', 'measure' => '', 'decimals' => 0, 'frequency' => 'month', 'formula' => null, 'level' => null, 'min' => null, 'max' => null, 'materiality' => '0',
            'units' => [['unit' => 'ORG', 'weight' => 1, 'from' => null, 'to' => null, 'rules' => []]],
            'rules' => [['from' => '2020-01', 'reference' => 'none', 'measure' => 'level', 'green' => '90', 'amber' => '80', 'stretch' => null]],
        ])],
        'readings' => [['kpi' => 'K', 'unit' => 'ORG', 'period' => '2026-08', 'actual' => '85', 'note' => null]],
        'targets' => [],
    ]);

    expect(assessed($long))->toBe(assessed($short));
});

it('refuses numbers that no float can hold, and half characters, with their line', function (string $item, string $says) {
    expect(problems('{"format":"kybernet-workbook","version":1,"calendar":{"yearStartMonth":4},'."\n\"units\":[\n{$item}],\"kpis\":[]}"))->toBe(["/ not-json line 3: {$says}"]);
})->with([
    'too large' => ['{"code":"ORG","name":"O","weight":1e400}', '1e400 is beyond what a number here can be.'],
    'too small' => ['{"code":"ORG","name":"O","weight":1e-400}', '1e-400 is beyond what a number here can be.'],
    'half a character' => ['{"code":"ORG","name":"\\ud800"}', 'Half of a character stands alone: \\ud800 to \\udfff come in pairs.'],
]);

it('takes codes that differ only in case for one', function () {
    expect(problems(book(['units' => [['code' => 'ORG', 'name' => 'O'], ['code' => 'Org', 'name' => 'P', 'parent' => 'ORG']], 'kpis' => [kpi('LEAK'), kpi('Leak', ['name' => 'Other'])]])))
        ->toBe(["/kpis/1/code duplicate The KPI 'LEAK' is defined already.", "/units/1/code duplicate The unit 'ORG' is defined already."]);
});

it('takes such a number inside of a text', function () {
    expect(problems(book(['units' => [['code' => 'ORG', 'name' => 'Plant 1e400']]])))->toBe([]);
});

it('says in which line a text stops being JSON', function (string $json, string $line) {
    expect(problems($json))->toHaveCount(1)->and(problems($json)[0])->toStartWith("/ not-json {$line}");
})->with([
    'nothing' => ['', 'line 1: The text ends too early'],
    'an array' => ['[1, 2]', 'line 1: A workbook is a JSON object'],
    'cut off' => ["{\"format\": \"kybernet-workbook\",\n\"units\": [\n{\"code\": ", 'line 3: The text ends too early'],
    'a comma too many' => ["{\n\"units\": [1,\n],\n\"kpis\": []}", 'line 3: This is not JSON: "],'],
    'a comma too few' => ["{\"version\": 1\n\"units\": []}", 'line 2: This is not JSON: "\"units'],
    'single quotes' => ["{\n'version': 1}", 'line 2: This is not JSON'],
    'a bare word' => ['{"version": one}', 'line 1: This is not JSON: "one}"'],
    'a leading zero' => ["{\"readings\": [\n{\"kpi\": 007}]}", 'line 2: This is not JSON: "007'],
    'a control character' => ["{\"readings\": [{\"kpi\": \"a\tb\"}]}", 'line 1: This is not JSON'],
    'something after the end' => ["{}\n{}", 'line 2: This is not JSON'],
    'not UTF-8' => ["{\"format\": \"\xff\"}", 'line 1: The text is not UTF-8'],
    'too deep' => ['{"kpis": '.str_repeat('[', 600).str_repeat(']', 600).'}', 'line 1: The text is nested too deeply'],
]);

it('tells everything that is wrong, each in its place', function () {
    $book = book([
        'version' => 2,
        'colour' => 'blue',
        'calendar' => ['yearStartMonth' => 13],
        'units' => [
            ['code' => 'ORG', 'name' => ''], ['code' => 'ORG', 'name' => 'Again'], ['code' => 'A', 'name' => 'A', 'parent' => 'B'], ['code' => 'B', 'name' => 'B', 'parent' => 'A'],
            ['code' => 'C', 'name' => 'C', 'parent' => 'NONE', 'weight' => -1, 'rollUp' => ['method' => 'share', 'amber' => '0.5', 'red' => '101']],
            ['code' => 'D', 'name' => 'D', 'rollUp' => ['method' => 'weighted', 'green' => '0.5', 'amber' => '1']],
        ],
        'kpis' => [
            kpi('K', ['polarity' => 'up', 'min' => '5', 'max' => '4', 'materiality' => '-1']),
            kpi('K', ['name' => 'k', 'accumulation' => 'recompute', 'formula' => 'A', 'rules' => []]),
            kpi('L', ['polarity' => 'none', 'theme' => 'T', 'objective' => 'O', 'drivers' => ['L', 'X'], 'department' => 'ZZ', 'units' => [['unit' => 'ZZ'], ['unit' => 'ORG', 'from' => '2026-05', 'to' => '2026-04', 'gathered' => true], ['unit' => 'ORG']]]),
            kpi('B', ['polarity' => 'band', 'rules' => [['from' => '2026-01', 'reference' => 'none', 'measure' => 'level', 'green' => '1', 'low' => '3', 'high' => '2', 'marginLow' => '-1']]]),
            ['code' => 'J', 'name' => 'J', 'kind' => 'judged', 'polarity' => 'higher', 'accumulation' => 'sum', 'units' => [['unit' => 'ORG', 'gathered' => true]], 'rules' => [['from' => '2026-01', 'reference' => 'none', 'measure' => 'level', 'green' => '1', 'amber' => '1']]],
            kpi('R', ['rules' => [
                ['from' => '2026-01', 'reference' => 'target', 'measure' => 'level', 'green' => '1', 'amber' => '1'], ['from' => '2026-01', 'reference' => 'recent', 'measure' => 'percent', 'green' => '6', 'amber' => '5', 'low' => '1'],
                ['from' => '2026-13', 'reference' => 'target', 'measure' => 'percent', 'green' => '1'],
            ]]),
            kpi('G', ['gather' => ['method' => 'weighted']]), kpi('H', ['gather' => ['method' => 'sum', 'weight' => 'K']]), kpi('I', ['gather' => ['method' => 'recompute']]), kpi('M', ['gather' => ['method' => 'weighted', 'weight' => 'J']]),
        ],
        'readings' => [
            ['kpi' => 'NO', 'unit' => 'ORG', 'period' => '2026-04', 'actual' => '1'], ['kpi' => 'R', 'unit' => 'A', 'period' => '2026-04', 'actual' => '1'],
            ['kpi' => 'R', 'unit' => 'ORG', 'period' => 'FY2026', 'actual' => '1'], ['kpi' => 'R', 'unit' => 'ORG', 'period' => '2026-04', 'actual' => '1,5'],
            ['kpi' => 'R', 'unit' => 'ORG', 'period' => '2026-05', 'actual' => 1], ['kpi' => 'R', 'unit' => 'ORG', 'period' => '2026-06', 'actual' => '1', 'status' => 'green'],
            ['kpi' => 'R', 'unit' => 'ORG', 'period' => '2026-07'], ['kpi' => 'R', 'unit' => 'ORG', 'period' => '2026-06', 'actual' => '2'], ['kpi' => 'J', 'unit' => 'ORG', 'period' => '2026-06', 'status' => 'green'],
            ['kpi' => 'J', 'unit' => 'ORG', 'period' => '2026-07', 'actual' => '1', 'note' => 'x'], ['kpi' => 'J', 'unit' => 'ORG', 'period' => '2026-08', 'status' => 'blue', 'note' => 'x'], 7,
        ],
        'targets' => [
            ['kpi' => 'R', 'unit' => 'ORG', 'period' => '2026-04', 'low' => '1', 'high' => '2'], ['kpi' => 'B', 'unit' => 'ORG', 'period' => '2026-04', 'target' => '1'], ['kpi' => 'B', 'unit' => 'ORG', 'period' => '2026-05', 'low' => '2', 'high' => '1'],
            ['kpi' => 'J', 'unit' => 'ORG', 'period' => '2026-05', 'target' => '1'], ['kpi' => 'R', 'unit' => 'ORG', 'period' => '2026-W05', 'target' => '1'], ['kpi' => 'R', 'unit' => 'ORG', 'period' => '2026-06', 'target' => '1'], ['kpi' => 'R', 'unit' => 'ORG', 'period' => '2026-06', 'target' => '1'],
        ],
        'calls' => [['kpi' => 'J', 'unit' => 'ORG', 'period' => '2026-06', 'status' => 'green', 'reason' => ' ', 'actual' => '1'], ['kpi' => 'R', 'unit' => 'ORG', 'period' => '2026-06', 'status' => 'no-data', 'reason' => 'x', 'actual' => 'x']],
    ]);
    $places = array_map(fn (string $line): string => implode(' ', array_slice(explode(' ', $line), 0, 2)), problems($book));

    expect(array_values(array_unique($places)))->toBe([
        '/calendar/yearStartMonth out-of-range', '/calls/0 not-allowed', '/calls/0/reason malformed', '/calls/1/actual malformed', '/calls/1/status not-allowed', '/colour unknown-member',
        '/kpis/0/materiality out-of-range', '/kpis/0/max limits', '/kpis/0/polarity not-allowed',
        '/kpis/1/accumulation not-allowed', '/kpis/1/code duplicate', '/kpis/1/formula not-allowed',
        '/kpis/2/department unknown-unit', '/kpis/2/drivers cycle', '/kpis/2/drivers/1 unknown-kpi', '/kpis/2/objective unknown-objective', '/kpis/2/rules/0 pairing',
        '/kpis/2/units/0/unit unknown-unit', '/kpis/2/units/1/gathered not-allowed', '/kpis/2/units/1/to limits', '/kpis/2/units/2/unit duplicate',
        '/kpis/3/rules/0 missing-member', '/kpis/3/rules/0/green not-allowed',
        '/kpis/4/accumulation not-allowed', '/kpis/4/polarity not-allowed', '/kpis/4/rules/0 not-allowed', '/kpis/4/units/0/gathered not-allowed',
        '/kpis/5/rules/0/measure pairing', '/kpis/5/rules/1 pairing', '/kpis/5/rules/1/amber limits', '/kpis/5/rules/1/from duplicate', '/kpis/5/rules/1/low not-allowed', '/kpis/5/rules/2 missing-member', '/kpis/5/rules/2/from malformed',
        '/kpis/6/gather missing-member', '/kpis/7/gather/weight not-allowed', '/kpis/8/gather/method not-allowed', '/kpis/9/gather/weight operand',
        '/readings/0/kpi unknown-kpi', '/readings/1/unit not-measured', '/readings/2/period period', '/readings/3/actual malformed', '/readings/4/actual wrong-type', '/readings/5/status not-allowed', '/readings/6 empty', '/readings/7/period duplicate',
        '/readings/8 missing-member', '/readings/9/actual not-allowed', '/readings/10/status not-allowed', '/readings/11 wrong-type',
        '/targets/0 missing-member', '/targets/0/high not-allowed', '/targets/0/low not-allowed', '/targets/1 missing-member', '/targets/1/target not-allowed', '/targets/2/high limits', '/targets/3 not-allowed', '/targets/4/period period', '/targets/6/period duplicate',
        '/units/0/name empty', '/units/0/name malformed', '/units/1/code duplicate', '/units/2/parent cycle', '/units/3/parent cycle', '/units/4/parent unknown-unit', '/units/4/rollUp/amber not-allowed', '/units/4/rollUp/red out-of-range', '/units/4/weight out-of-range', '/units/5/rollUp/amber limits',
        '/version not-allowed',
    ]);
});

it('refuses readings where the KPI takes none, and beyond its bounds', function (array $kpi, array $reading, ?string $problem) {
    $book = book([
        'units' => [['code' => 'ORG', 'name' => 'O'], ['code' => 'NET', 'name' => 'N', 'parent' => 'ORG']],
        'kpis' => [kpi('A', ['rules' => [], 'units' => [['unit' => 'ORG'], ['unit' => 'NET']]]), kpi('K', $kpi)],
        'readings' => [['kpi' => 'K', 'unit' => 'ORG', 'period' => '2026-04', ...$reading]],
    ]);

    expect(problems($book))->toBe($problem === null ? [] : [$problem]);
})->with([
    'on its bound' => [['min' => '0', 'max' => '5'], ['actual' => '5'], null],
    'above it' => [['min' => '0', 'max' => '5'], ['actual' => '5.00000001'], '/readings/0/actual bounds The figure cannot be above 5.'],
    'below it' => [['min' => '0', 'max' => '5'], ['actual' => '-1'], '/readings/0/actual bounds The figure cannot be below 0.'],
    'a note alone' => [[], ['note' => 'x'], null],
    'a note alone that is blank' => [[], ['note' => ' '], '/readings/0 empty A reading without a figure, a status or a note says nothing.'],
    'a formula' => [['kind' => 'formula', 'formula' => 'A * 2'], ['actual' => '1'], '/readings/0/actual not-allowed A formula KPI is worked out, not entered.'],
    'the note of a formula' => [['kind' => 'formula', 'formula' => 'A * 2'], ['note' => 'x'], null],
    'a gathered figure' => [['gather' => ['method' => 'sum'], 'units' => [['unit' => 'ORG', 'gathered' => true], ['unit' => 'NET']]], ['actual' => '1'], '/readings/0/actual not-allowed This figure is gathered from the units below, not entered.'],
    'before it is measured' => [['units' => [['unit' => 'ORG', 'from' => '2026-05']]], ['actual' => '1'], "/readings/0/period outside The KPI is not measured in 'ORG' in 2026-04."],
    'twenty digits and eight' => [[], ['actual' => '-12345678901234567890.12345678'], null],
    'one more' => [[], ['actual' => '1.123456789'], '/readings/0/actual malformed "1.123456789" does not have the form that is needed here.'],
]);

it('gathers a KPI over the units below, like for like', function (array $gather, string $accumulation, array $expected) {
    $units = [['code' => 'ORG', 'name' => 'O'], ['code' => 'NET', 'name' => 'N', 'parent' => 'ORG'], ['code' => 'Z1', 'name' => '1', 'parent' => 'NET'], ['code' => 'Z2', 'name' => '2', 'parent' => 'NET']];
    $zones = [['unit' => 'Z1'], ['unit' => 'Z2']];
    $book = book(['units' => $units, 'kpis' => [
        kpi('K', ['accumulation' => $accumulation, 'gather' => $gather, 'units' => [['unit' => 'ORG', 'gathered' => true], ...$zones], 'rules' => [['from' => '2020-01', 'reference' => 'target', 'measure' => 'percent', 'green' => '0', 'amber' => '10']]]),
        kpi('PROPS', ['rules' => [], 'units' => $zones]),
    ], 'readings' => [
        ...rows('K', '2025-07', ['50', '60'], unit: 'Z1'), ...rows('K', '2025-07', ['5', '6'], unit: 'Z2'),
        ...rows('K', '2026-07', ['100', '200'], unit: 'Z1'), ...rows('K', '2026-07', ['10', null], unit: 'Z2'),
        ...rows('PROPS', '2026-07', ['1', '1'], unit: 'Z1'), ...rows('PROPS', '2026-07', ['3', '3'], unit: 'Z2'),
        ...rows('PROPS', '2025-07', ['1', '1'], unit: 'Z1'), ...rows('PROPS', '2025-07', ['3', '3'], unit: 'Z2'),
    ], 'targets' => [...rows('K', '2026-07', ['100', '100'], 'target', 'Z1'), ...rows('K', '2026-07', ['20', '20'], 'target', 'Z2')]]);
    $span = assessed($book)['assessments']['K ORG']['spans'];

    expect([$span['month']['actual'], $span['month']['target'], $span['month']['prior'], $span['quarter']['actual'], $span['quarter']['target'], $span['quarter']['prior']])->toBe($expected)
        ->and($span['month']['missingUnits'])->toBe(['Z2'])->and($span['month']['reason'])->toEndWith('Without Z2.')->and($span['month']['status'])->toBe('green');
})->with([
    // In August only Z1 has reported: its target and its prior year are compared, not those of both.
    'a sum' => [['method' => 'sum'], 'sum', ['200', '100', '60', '310', '220', '115']],
    'a mean' => [['method' => 'mean'], 'mean', ['200', '100', '60', '127.5', '80', '43.75']],
    'a weighted mean' => [['method' => 'weighted', 'weight' => 'PROPS'], 'mean', ['200', '100', '60', '116.25', '70', '38.125']],
]);

it('gathers a ratio over units as a ratio of sums, over the units that have every operand', function () {
    $zones = [['unit' => 'Z1'], ['unit' => 'Z2'], ['unit' => 'Z3']];
    $book = book([
        'units' => [['code' => 'ORG', 'name' => 'O'], ...array_map(fn (array $zone): array => ['code' => $zone['unit'], 'name' => $zone['unit'], 'parent' => 'ORG'], $zones)],
        'kpis' => [
            kpi('A', ['accumulation' => 'sum', 'rules' => [], 'units' => $zones, 'gather' => ['method' => 'sum']]), kpi('B', ['accumulation' => 'sum', 'rules' => [], 'units' => $zones]),
            kpi('R', ['kind' => 'formula', 'accumulation' => 'recompute', 'formula' => 'A / B * 100', 'gather' => ['method' => 'recompute'], 'units' => [['unit' => 'ORG', 'gathered' => true], ...$zones]]),
            kpi('S', ['kind' => 'formula', 'accumulation' => 'recompute', 'formula' => 'below(A) / 2']),
        ],
        'readings' => [...rows('A', '2026-08', ['90'], unit: 'Z1'), ...rows('B', '2026-08', ['100'], unit: 'Z1'), ...rows('A', '2026-08', ['10'], unit: 'Z2'), ...rows('B', '2026-08', ['300'], unit: 'Z2'), ...rows('A', '2026-08', ['50'], unit: 'Z3')],
    ]);
    $assessed = assessed($book)['assessments'];

    expect($assessed['R ORG']['spans']['month'])->toMatchArray(['actual' => '25', 'missingUnits' => ['Z3']])
        ->and($assessed['R ORG']['projection'])->toMatchArray(['method' => 'operands', 'value' => '25'])
        ->and($assessed['S ORG']['spans']['month']['actual'])->toBe('75');
});

it('rolls every unit up in four spans, by its own method', function () {
    $book = json_decode(fixture(), true);
    $rollUps = assessed($book)['rollUps'];

    expect(array_map(fn (array $rollUp): string => "{$rollUp['unit']} {$rollUp['span']}", array_slice($rollUps, 0, 5)))->toBe(['ORG month', 'ORG quarter', 'ORG yearToDate', 'ORG rolling12', 'NET month'])
        ->and(array_column($rollUps, 'status', 'unit')['NET'])->toBe('red')
        ->and($rollUps[0]['counts'])->toBe(['green' => 5, 'amber' => 3, 'red' => 2, 'notJudged' => 5, 'noData' => 0]);
});

it('writes the chosen span as a table', function () {
    $rows = iterator_to_array((new AssessmentWriter(reader()->read(fixture()), month('2026-08'), Span::Quarter))->table(), false);
    $row = array_combine($rows[0], $rows[2]);

    expect($rows)->toHaveCount(16)->and($row)->toMatchArray(['kpi' => 'LEAK', 'unit' => 'Z1', 'span' => 'quarter', 'from' => '2026-07', 'to' => '2026-08', 'actual' => '20', 'targetFrom' => 'year', 'step' => '', 'status' => 'green']);
});
