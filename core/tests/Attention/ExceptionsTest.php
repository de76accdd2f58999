<?php

declare(strict_types=1);

use Kybernet\Core\Calendar\Span;

use function Kybernet\Core\Tests\assessed;
use function Kybernet\Core\Tests\book;
use function Kybernet\Core\Tests\kpi;
use function Kybernet\Core\Tests\rows;

/** The points of each reason of the one KPI there is, at 2026-08. */
function reasons(array $readings, array $kpi = [], array $targets = [], Span $span = Span::Month): array
{
    $result = assessed(book(['kpis' => [kpi('K', $kpi)], 'readings' => $readings, 'targets' => $targets]), '2026-08', $span);

    return array_column($result['exceptions'][0]['reasons'] ?? [], 'points', 'code');
}

function noted(array $rows): array
{
    return array_map(fn (array $row): array => [...$row, 'note' => 'Known.'], $rows);
}

it('gives points for what deserves attention', function (array $readings, array $reasons) {
    expect(reasons($readings))->toBe($reasons);
})->with([
    'nothing' => [rows('K', '2026-08', ['95']), []],
    'red without a note' => [rows('K', '2026-08', ['70']), ['red' => 40, 'unexplained' => 10]],
    'amber with a note' => [noted(rows('K', '2026-08', ['85'])), ['amber' => 15]],
    'worse than the latest coloured one, past a gap' => [noted(rows('K', '2026-06', ['95', null, '85'])), ['amber' => 15, 'worsened' => 20]],
    'two in a row are not persistent' => [noted(rows('K', '2026-07', ['85', '85'])), ['amber' => 15]],
    'three are, amber and red mixed, gaps skipped' => [noted(rows('K', '2026-05', ['70', '85', null, '85'])), ['amber' => 15, 'persistent' => 5]],
    'at most 20 points for it' => [noted(rows('K', '2025-09', array_fill(0, 12, '70'))), ['red' => 40, 'persistent' => 20]],
    'missing, and still persistent' => [noted(rows('K', '2026-04', ['85', '85', '85', '85'])), ['persistent' => 10, 'missing' => 25]],
    'never reported' => [[], ['missing' => 25]],
]);

it('sees the chosen span, and single periods behind it', function () {
    $readings = noted(rows('K', '2026-04', ['60', '60', '60', '60', '95']));

    expect(reasons($readings))->toBe(['projected-miss' => 15])->and(reasons($readings, span: Span::YearToDate))->toBe(['red' => 40]);
});

it('looks ahead where the span itself is not red', function (string $actual, array $reasons) {
    // 11 a month are on course for each month, but 12 × 11 = 132 fall short of a year target of 200 by 34 %.
    $rules = [['from' => '2020-01', 'reference' => 'target', 'measure' => 'percent', 'green' => '0', 'amber' => '5']];
    $targets = [...rows('K', '2026-08', ['11'], 'target'), ['kpi' => 'K', 'unit' => 'ORG', 'period' => 'FY2026', 'target' => '200']];

    expect(reasons(noted(rows('K', '2026-08', [$actual])), ['accumulation' => 'sum', 'rules' => $rules], $targets))->toBe($reasons);
})->with([['11', ['projected-miss' => 15]], ['5', ['red' => 40]]]);

it('compares with prior year beyond 10 % and beyond what matters', function (string $prior, string $actual, array $kpi, array $reasons) {
    $readings = [...rows('K', '2025-08', [$prior]), ...noted(rows('K', '2026-08', [$actual]))];

    expect(reasons($readings, $kpi))->toBe($reasons);
})->with([
    'exactly 10 %' => ['110', '99', [], []],
    'more' => ['110', '98.9', [], ['behind-prior-year' => 5]],
    'better' => ['90', '110', [], []],
    'not beyond what matters' => ['110', '98.9', ['materiality' => '11.1'], []],
    'a prior year of 0' => ['0', '95', ['polarity' => 'lower', 'rules' => []], []],
    'only tracked' => ['110', '50', ['polarity' => 'none', 'rules' => []], []],
]);

it('takes up signals on the adverse side that are completed now', function (string $polarity, string $last, array $reasons) {
    $swing = ['99.5', '100.5', '99.5', '100.5', '99.5', '100.5', '99.5', '100.5'];
    $result = reasons(noted(rows('K', '2025-12', [...$swing, $last])), ['polarity' => $polarity, 'rules' => []]);

    expect($result)->toBe($reasons);
})->with([
    ['higher', '96', ['signal' => 10]], ['higher', '104', []], ['lower', '104', ['signal' => 10]], ['lower', '96', []],
    ['band', '104', ['signal' => 10]], ['band', '96', ['signal' => 10]], ['none', '104', []],
]);

it('looks at limits from the periods that somebody has fixed', function () {
    $fixed = ['units' => [['unit' => 'ORG', 'baseline' => ['from' => '2024-04', 'to' => '2024-06']]], 'rules' => []];

    expect(reasons([...rows('K', '2024-04', ['100', '101', '100']), ...noted(rows('K', '2026-08', ['97']))], $fixed))->toBe(['signal' => 10])
        ->and(reasons([...rows('K', '2024-04', ['100', '101', '100']), ...noted(rows('K', '2026-08', ['97']))], ['rules' => []]))->toBe([]);
});

it('ranks by points times weight, ties in the workbook’s order, and tells good news apart', function () {
    $kpis = [
        kpi('A', ['units' => [['unit' => 'ORG', 'weight' => 0.5]]]), kpi('B'), kpi('C'), kpi('D', ['units' => [['unit' => 'ORG', 'weight' => 3]]]),
        kpi('E', ['units' => [['unit' => 'ORG', 'to' => '2026-07']]]), kpi('Z', ['units' => [['unit' => 'ORG', 'weight' => 0]]]),
    ];
    $result = assessed(book(['kpis' => $kpis, 'readings' => [
        ...rows('A', '2026-08', ['70']), ...noted(rows('B', '2026-08', ['85'])), ...noted(rows('C', '2026-08', ['85'])),
        ...rows('D', '2026-06', ['70', null, '95']), ...rows('E', '2026-07', ['10']), ...rows('Z', '2026-08', ['70']),
    ]]));

    expect(array_column($result['exceptions'], 'points', 'kpi'))->toBe(['A' => 25, 'B' => 15, 'C' => 15, 'Z' => 0])
        ->and($result['goodNews'])->toBe([['kpi' => 'D', 'unit' => 'ORG', 'text' => 'On course again, off course before.']])
        // Outside the months in which it is measured there is no streak and no exception.
        ->and($result['assessments']['E ORG']['streak'])->toBeNull()
        ->and($result['assessments']['E ORG']['spans']['month'])->toMatchArray(['expected' => 0, 'periods' => null, 'status' => 'not-judged', 'reason' => 'Not judged: nothing was due.']);
});

it('asks entered and judged KPIs for what is missing, not formulas', function () {
    $kpis = [kpi('A', ['rules' => []]), kpi('F', ['kind' => 'formula', 'formula' => 'A * 2', 'rules' => []]), ['code' => 'M', 'name' => 'M', 'kind' => 'judged', 'units' => [['unit' => 'ORG']]]];

    expect(array_column(assessed(book(['kpis' => $kpis]))['exceptions'], 'kpi'))->toBe(['A', 'M']);
});
