<?php

declare(strict_types=1);

use Brick\Math\BigDecimal;
use Kybernet\Core\Calendar\Frequency;
use Kybernet\Core\Measure\Accumulation;
use Kybernet\Core\Status\Deviation;
use Kybernet\Core\Status\Polarity;
use Kybernet\Core\Status\Reference;
use Kybernet\Core\Status\RuleSet;

use function Kybernet\Core\Tests\assessed;
use function Kybernet\Core\Tests\book;
use function Kybernet\Core\Tests\kpi;
use function Kybernet\Core\Tests\month;
use function Kybernet\Core\Tests\problems;
use function Kybernet\Core\Tests\rows;

/** The span of a KPI of one rule set, with actuals and targets from 2026-04 on and, a year before, the prior ones. */
function judged(array $rule, array $actuals, array $targets = [], array $prior = [], array $members = [], string $span = 'month'): array
{
    $last = ['2026-04', '2026-05', '2026-06', '2026-07', '2026-08'][max(count($actuals), 1) - 1];
    $book = book([
        'kpis' => [kpi('K', ['rules' => [['from' => '2020-01', ...$rule]], ...$members])],
        'readings' => [...rows('K', '2025-04', $prior), ...rows('K', '2026-04', $actuals)],
        'targets' => isset($targets[0]) && is_array($targets[0])
            ? array_map(fn (array $row, int $index): array => [...$row, 'low' => $targets[$index][0], 'high' => $targets[$index][1]], rows('K', '2026-04', array_fill(0, count($targets), '0'), 'nothing'), array_keys($targets))
            : rows('K', '2026-04', $targets, 'target'),
    ]);
    $book['targets'] = array_map(fn (array $row): array => array_diff_key($row, ['nothing' => true]), $book['targets']);

    return assessed($book, $last)['assessments']['K ORG']['spans'][$span];
}

it('judges the distance from target in the KPI’s own measure', function (string $polarity, string $accumulation, array $actuals, string $status, string $words) {
    $span = judged(['reference' => 'target', 'measure' => 'absolute', 'green' => '0', 'amber' => '5'], $actuals, ['100', '100'], members: ['polarity' => $polarity, 'accumulation' => $accumulation], span: 'yearToDate');

    expect($span['status'])->toBe($status)->and($span['reason'])->toContain($words);
})->with([
    'short by five' => ['higher', 'mean', ['95'], 'amber', '5 under target'],
    'short by more' => ['higher', 'mean', ['94.999'], 'red', '5.001 under target'],
    'over by five' => ['lower', 'mean', ['105'], 'amber', 'drifting to 5 over'],
    'the limit of a total grows with its periods' => ['lower', 'sum', ['105', '105'], 'amber', 'drifting to 10 over'],
    'that of a mean does not' => ['lower', 'mean', ['105', '106'], 'red', '6 over target'],
    'beaten' => ['lower', 'latest', ['90'], 'green', '10 under target'],
]);

// Progress of 104 towards 500 is 20.8 %; with cuts at 30 and 70 red, 30 exactly amber, 70 exactly green: common practice.
it('judges the share of a target that is reached', function (string $polarity, string $actual, string $target, string $green, string $amber, string $status, string $words) {
    $span = judged(['reference' => 'target', 'measure' => 'reached', 'green' => $green, 'amber' => $amber], [$actual], [$target], members: ['polarity' => $polarity]);

    expect($span['status'])->toBe($status)->and($span['reason'])->toContain($words);
})->with([
    ['higher', '104', '500', '70', '30', 'red', '20.8 % of target reached'],
    ['higher', '150', '500', '70', '30', 'amber', 'drifting from 30 %'],
    ['higher', '350', '500', '70', '30', 'green', '70 % of target reached'],
    'lower: 200 less what is used' => ['lower', '110', '100', '95', '90', 'amber', 'counts as 90 %'],
    'lower, a hair more' => ['lower', '110.00000001', '100', '95', '90', 'red', '89.99999999 %'],
    'lower, on target' => ['lower', '100', '100', '100', '90', 'green', '100 % of target'],
    'a target of 0' => ['higher', '5', '0', '100', '90', 'not-judged', 'not above 0'],
    'a target below 0' => ['higher', '-5', '-10', '100', '90', 'not-judged', 'not above 0'],
]);

it('judges against the same span a year earlier, like for like', function (array $prior, string $span, string $status, int $compared, string $words) {
    $judged = judged(['reference' => 'prior-year', 'measure' => 'percent', 'green' => '0', 'amber' => '10'], ['90', '100'], [], $prior, ['accumulation' => 'sum'], $span);

    expect($judged)->toMatchArray(['status' => $status, 'comparedPrior' => $compared])->and($judged['reason'])->toContain($words);
})->with([
    'the month' => [['80', '100'], 'month', 'green', 1, 'exactly at last year'],
    'the year to date' => [['100', '100'], 'yearToDate', 'amber', 2, '5 % under last year'],
    'only the months that have one' => [[null, '100'], 'yearToDate', 'green', 1, 'exactly at last year'],
    'none' => [[], 'yearToDate', 'not-judged', 0, 'no prior year'],
]);

it('judges against the mean of the periods just before', function (array $actuals, int $periods, string $span, string $status, string $words) {
    $judged = judged(['reference' => 'recent', 'measure' => 'percent', 'green' => '0', 'amber' => '10', 'periods' => $periods], $actuals, span: $span);

    expect($judged['status'])->toBe($status)->and($judged['reason'])->toContain($words);
})->with([
    'a hair below a mean of thirds' => [['1', '1', '2', '1.33333333'], 3, 'month', 'amber', '0.0000003 % under the mean of the previous 3 periods'],
    'the period before alone' => [['100', '91'], 1, 'month', 'amber', '9 % under the previous period'],
    'one of them is missing' => [['100', null, '100', '100'], 3, 'month', 'not-judged', 'not all of the 3'],
    'too early' => [['100'], 1, 'month', 'not-judged', 'not all of the 1'],
    'a longer span' => [['100', '100'], 1, 'yearToDate', 'not-judged', 'single period only'],
    'a longer span that holds one period' => [['100'], 1, 'yearToDate', 'not-judged', 'not all of the 1'],
]);

it('judges the year to date against the year target, whatever is shown', function (array $actuals, string $span, string $status, ?string $words) {
    $book = book([
        'kpis' => [kpi('K', ['accumulation' => 'sum', 'rules' => [['from' => '2020-01', 'reference' => 'year-target', 'measure' => 'reached', 'green' => '70', 'amber' => '30']]])],
        'readings' => rows('K', '2026-02', $actuals),
        'targets' => [['kpi' => 'K', 'unit' => 'ORG', 'period' => 'FY2026', 'target' => '500']],
    ]);
    $judged = assessed($book, '2026-06')['assessments']['K ORG']['spans'][$span];

    expect($judged['status'])->toBe($status)->and($judged['reason'])->toContain($words);
})->with([
    'the month shows the year' => [['900', '900', '100', '49', '1'], 'month', 'amber', '30 % of the year target reached'],
    'rolling twelve too' => [['900', '900', '100', '49', '1'], 'rolling12', 'amber', '30 % of the year target reached'],
    'no reading in the span shown' => [['900', '900', '100', '49', null], 'month', 'no-data', 'No reading'],
    'none this year' => [['900', '900', null, null, null], 'rolling12', 'no-data', 'No reading'],
]);

it('judges a band by the distance outside it', function (array $rule, string $actual, string $status, string $variance, ?string $percent, string $effect, string $words) {
    $judged = judged(['reference' => 'target', ...$rule], [$actual], [['20', '40']], members: ['polarity' => 'band', 'measure' => 'bar']);

    expect($judged)->toMatchArray(['status' => $status, 'variance' => $variance, 'variancePercent' => $percent, 'effect' => $effect, 'low' => '20', 'high' => '40', 'target' => null])
        ->and($judged['reason'])->toContain($words);
})->with([
    'on its lower limit' => [['measure' => 'percent', 'green' => '0', 'amber' => '5'], '20', 'green', '0', '0', 'none', 'inside 20 bar to 40 bar'],
    'below, in % of the lower limit' => [['measure' => 'percent', 'green' => '0', 'amber' => '5'], '19', 'amber', '-1', '-5', 'adverse', '1 bar below 20 bar to 40 bar (5 %)'],
    'above, in % of the upper limit' => [['measure' => 'percent', 'green' => '0', 'amber' => '5'], '42.1', 'red', '2.1', '5.25', 'adverse', '(5.3 %)'],
    'in its own measure' => [['measure' => 'absolute', 'green' => '0', 'amber' => '2'], '42', 'amber', '2', '5', 'adverse', 'drifting to 2 bar outside'],
    'a tolerance for green' => [['measure' => 'absolute', 'green' => '1', 'amber' => '2'], '41', 'green', '1', '2.5', 'adverse', 'On course to 1 bar outside'],
]);

it('judges fixed levels of a band with a margin on each side', function (string $accumulation, array $actuals, string $status) {
    $rule = ['reference' => 'none', 'measure' => 'level', 'low' => '10', 'high' => '20', 'marginLow' => '1', 'marginHigh' => '3'];

    expect(judged($rule, $actuals, members: ['polarity' => 'band', 'accumulation' => $accumulation], span: 'yearToDate')['status'])->toBe($status);
})->with([
    ['mean', ['10'], 'green'], ['mean', ['20'], 'green'], ['mean', ['9'], 'amber'], ['mean', ['8.99'], 'red'], ['mean', ['23'], 'amber'], ['mean', ['23.01'], 'red'],
    'a total of two has twice the band and twice the margins' => ['sum', ['9', '9'], 'amber'],
    'and no more' => ['sum', ['9', '8.9'], 'red'],
]);

it('tells by prior year whether a band came nearer', function (string $prior, string $actual, ?array $band, ?string $effect) {
    $targets = $band === null ? [] : [$band];

    expect(judged(['reference' => 'target', 'measure' => 'percent', 'green' => '0', 'amber' => '5'], [$actual], $targets, [$prior], ['polarity' => 'band'])['priorEffect'])->toBe($effect);
})->with([
    'from far below to just above' => ['10', '41', ['20', '40'], 'favourable'],
    'outwards' => ['41', '45', ['20', '40'], 'adverse'],
    'both inside' => ['25', '35', ['20', '40'], 'none'],
    'no band to compare with' => ['25', '35', null, null],
]);

it('marks a green that reaches its stretch, and no other', function (string $polarity, array $actuals, bool $stretched, string $words) {
    $judged = judged(['reference' => 'none', 'measure' => 'level', 'green' => '10', 'amber' => '10', 'stretch' => $polarity === 'higher' ? '12' : '8'], $actuals, members: ['polarity' => $polarity, 'accumulation' => 'sum'], span: 'yearToDate');

    expect($judged['stretch'] ?? false)->toBe($stretched)->and($judged['reason'])->toContain($words);
})->with([
    ['higher', ['12', '12'], true, 'The stretch of 24 is reached.'],
    ['higher', ['12', '11.9'], false, 'Stretch: 24.'],
    ['lower', ['8'], true, 'The stretch of 8 is reached.'],
    ['lower', ['11'], false, 'Stretch: 8.'],
]);

it('lets a unit have rule sets of its own, once they are in force', function (string $month, string $status) {
    $book = book(['kpis' => [kpi('K', ['units' => [['unit' => 'ORG', 'rules' => [['from' => '2026-06', 'reference' => 'none', 'measure' => 'level', 'green' => '10', 'amber' => '5']]]]])], 'readings' => rows('K', '2026-04', ['11', '11', '11'])]);

    expect(assessed($book, $month)['assessments']['K ORG']['spans']['month']['status'])->toBe($status);
})->with([['2026-05', 'red'], ['2026-06', 'green']]);

it('judges a quarter by the rule set in force in the month in which it begins', function (string $from, string $status) {
    $book = book(['kpis' => [kpi('K', ['frequency' => 'quarter', 'rules' => [['from' => $from, 'reference' => 'none', 'measure' => 'level', 'green' => '9', 'amber' => '8']]])], 'readings' => rows('K', 'FY2026-Q1', ['10'], frequency: Frequency::Quarter)]);

    expect(assessed($book, '2026-06')['assessments']['K ORG']['spans']['month']['status'])->toBe($status);
})->with([['2026-04', 'green'], ['2026-05', 'not-judged']]);

it('lets a person call it otherwise until the figure changes', function (string $over, string $span, string $status, ?string $computed) {
    $book = book([
        'kpis' => [kpi('K')],
        'readings' => rows('K', '2026-07', ['70', '95']),
        'calls' => [['kpi' => 'K', 'unit' => 'ORG', 'period' => '2026-08', 'status' => 'amber', 'reason' => 'The meter was off.', 'actual' => $over]],
    ]);
    $result = assessed($book);
    $assessed = $result['assessments']['K ORG']['spans'][$span];

    expect($assessed['status'])->toBe($status)->and($assessed['computed'] ?? null)->toBe($computed)
        ->and($result['rollUps'][0]['status'])->toBe($over === '95' ? 'amber' : 'green')
        ->and($result['assessments']['K ORG']['streak']['status'])->toBe($over === '95' ? 'amber' : 'green');
})->with([
    'as long as it holds' => ['95', 'month', 'amber', 'green'],
    'not on a span it was not made on' => ['95', 'quarter', 'amber', null],
    'lapsed' => ['94', 'month', 'green', null],
]);

it('holds a call on its own span and period alone', function (string $span, string $month, string $shown, string $status) {
    $book = book([
        'kpis' => [kpi('K')],
        'readings' => rows('K', '2026-04', ['95', '95', '95']),
        'calls' => [['kpi' => 'K', 'unit' => 'ORG', 'period' => '2026-05', 'span' => $span, 'status' => 'red', 'reason' => 'Seen otherwise.', 'actual' => '95']],
    ]);

    expect(assessed($book, $month)['assessments']['K ORG']['spans'][$shown]['status'])->toBe($status);
})->with([
    ['month', '2026-05', 'month', 'red'], ['month', '2026-05', 'yearToDate', 'green'], ['month', '2026-06', 'month', 'green'], ['month', '2026-04', 'month', 'green'],
    ['yearToDate', '2026-05', 'yearToDate', 'red'], ['yearToDate', '2026-06', 'yearToDate', 'green'], ['quarter', '2026-05', 'yearToDate', 'green'],
]);

it('takes the latest colour of a judged KPI, or the mean of its scores', function (string $accumulation, array $colours, string $status, int $reported) {
    $book = book([
        'kpis' => [['code' => 'MOOD', 'name' => 'Mood', 'kind' => 'judged', 'accumulation' => $accumulation, 'units' => [['unit' => 'ORG']]]],
        'readings' => array_map(fn (array $row): array => [...$row, 'note' => 'Because.'], rows('MOOD', '2026-04', $colours, 'status')),
    ]);
    $assessed = assessed($book, '2026-06')['assessments']['MOOD ORG'];

    expect($assessed['spans']['yearToDate'])->toMatchArray(['status' => $status, 'reported' => $reported, 'actual' => null, 'change' => null, 'step' => null])
        ->and($assessed)->toMatchArray(['trend' => null, 'control' => null, 'projection' => null]);
})->with([
    ['latest', ['green', 'green', 'red'], 'red', 3], ['latest', ['green', 'amber', null], 'amber', 2], ['latest', [null, null, null], 'no-data', 0],
    'a mean of 1.5' => ['mean', ['green', 'amber'], 'green', 2], 'a mean of 0.5' => ['mean', ['amber', 'red'], 'amber', 2], 'below it' => ['mean', ['amber', 'red', 'red'], 'red', 3],
]);

it('refuses pairings and limits that cannot judge', function (Polarity $polarity, Accumulation $accumulation, string $reference, string $measure, string $green, string $amber, ?int $periods, ?string $stretch, array $at) {
    $problems = RuleSet::problems($polarity, $accumulation, Reference::from($reference), Deviation::from($measure), BigDecimal::of($green), BigDecimal::of($amber), $periods, $stretch === null ? null : BigDecimal::of($stretch));

    expect(array_keys($problems))->toBe($at);
})->with([
    'a share needs green above amber' => [Polarity::Higher, Accumulation::Sum, 'target', 'reached', '90', '95', null, null, ['amber']],
    'a distance needs green below amber' => [Polarity::Higher, Accumulation::Sum, 'target', 'absolute', '5', '4', null, null, ['amber']],
    'a share of a band' => [Polarity::Band, Accumulation::Sum, 'target', 'reached', '95', '90', null, null, ['measure']],
    'a band and its prior year' => [Polarity::Band, Accumulation::Sum, 'prior-year', 'percent', '0', '5', null, null, ['measure']],
    'a band and what was recent' => [Polarity::Band, Accumulation::Sum, 'recent', 'percent', '0', '5', 3, null, ['measure']],
    'a year target of a mean' => [Polarity::Higher, Accumulation::Mean, 'year-target', 'reached', '70', '30', null, null, ['measure']],
    'a year target where less is better' => [Polarity::Lower, Accumulation::Sum, 'year-target', 'reached', '70', '30', null, null, ['measure']],
    'a year target in percent' => [Polarity::Higher, Accumulation::Sum, 'year-target', 'percent', '0', '5', null, null, ['measure']],
    'a sound year target' => [Polarity::Higher, Accumulation::Sum, 'year-target', 'reached', '70', '30', null, '80', []],
    'levels need no reference' => [Polarity::Higher, Accumulation::Sum, 'prior-year', 'level', '2', '1', null, null, ['measure']],
    'recent without a number' => [Polarity::Higher, Accumulation::Sum, 'recent', 'absolute', '0', '5', null, null, ['periods']],
    'recent of none' => [Polarity::Higher, Accumulation::Sum, 'recent', 'absolute', '0', '5', 0, null, ['periods']],
    'a number without recent' => [Polarity::Higher, Accumulation::Sum, 'target', 'absolute', '0', '5', 3, null, ['periods']],
    'two at once' => [Polarity::Higher, Accumulation::Sum, 'recent', 'percent', '6', '5', null, null, ['periods', 'amber']],
    'a stretch of a band' => [Polarity::Band, Accumulation::Sum, 'target', 'percent', '0', '5', null, '3', ['stretch']],
]);

it('refuses levels of a band that are no band', function (string $low, string $high, string $below, string $above, array $at) {
    expect(array_keys(RuleSet::bandProblems(BigDecimal::of($low), BigDecimal::of($high), BigDecimal::of($below), BigDecimal::of($above))))->toBe($at);
})->with([
    ['1', '1', '0', '0', []],
    ['2', '1', '0', '0', ['high']],
    ['1', '2', '-1', '-0.1', ['marginLow', 'marginHigh']],
]);

it('says why a rule set is refused', function (Polarity $polarity, string $reference, string $measure, string $green, string $amber, ?int $periods, string $member, string $message) {
    $define = fn () => RuleSet::define($polarity, Accumulation::Sum, month('2026-01'), Reference::from($reference), Deviation::from($measure), BigDecimal::of($green), BigDecimal::of($amber), $periods);
    $problems = RuleSet::problems($polarity, Accumulation::Sum, Reference::from($reference), Deviation::from($measure), BigDecimal::of($green), BigDecimal::of($amber), $periods);

    expect($problems)->toBe([$member => $message])->and($define)->toThrow(InvalidArgumentException::class, $message);
})->with([
    [Polarity::None, 'target', 'percent', '0', '5', null, 'polarity', 'A KPI that is only tracked has no limits.'],
    [Polarity::Lower, 'year-target', 'reached', '70', '30', null, 'measure', "The reference 'year-target' is for totals of which more is better."],
    [Polarity::Higher, 'year-target', 'percent', '0', '5', null, 'measure', "'percent' does not go with the reference 'year-target'."],
    [Polarity::Band, 'target', 'reached', '95', '90', null, 'measure', "'reached' does not go with the reference 'target' on a band."],
    [Polarity::Higher, 'recent', 'percent', '0', '5', null, 'periods', 'The number of previous periods is missing.'],
    [Polarity::Higher, 'target', 'percent', '0', '5', 2, 'periods', 'Only a comparison with recent periods has a number of periods.'],
    [Polarity::Higher, 'recent', 'percent', '0', '5', 0, 'periods', 'At least one previous period is needed.'],
    [Polarity::Higher, 'target', 'percent', '6.50', '5', null, 'amber', 'Drifting must reach at least as far as on course: 6.5 % or more.'],
    [Polarity::Higher, 'target', 'absolute', '6', '5', null, 'amber', 'Drifting must reach at least as far as on course: 6 or more.'],
    [Polarity::Lower, 'target', 'reached', '90', '95', null, 'amber', 'Drifting must ask for no more than on course: 90 % or less.'],
    [Polarity::Lower, 'none', 'level', '3', '2', null, 'amber', 'The level for drifting must be 3 or higher: lower is better here.'],
    [Polarity::Higher, 'none', 'level', '2', '3', null, 'amber', 'The level for drifting must be 2 or lower: higher is better here.'],
]);

it('says why levels of a band are refused', function () {
    expect(RuleSet::bandProblems(BigDecimal::of('2.0'), BigDecimal::of('1'), BigDecimal::of('-1'), BigDecimal::of('0')))
        ->toBe(['high' => 'The upper limit must be 2 or more.', 'marginLow' => 'A margin reaches outward: it cannot be negative.']);
    RuleSet::defineBand(month('2026-01'), BigDecimal::of('2'), BigDecimal::of('1'), BigDecimal::of('0'), BigDecimal::of('0'));
})->throws(InvalidArgumentException::class, 'The upper limit must be 2 or more.');

it('asks of the year target what its pace asks by now', function (string $pace, array $lastYear, string $status, string $words) {
    $rule = ['from' => '2020-01', 'reference' => 'year-target', 'measure' => 'reached', 'green' => '100', 'amber' => '90', ...($pace === '' ? [] : ['pace' => $pace])];
    $span = assessed(book([
        'kpis' => [kpi('K', ['accumulation' => 'sum', 'rules' => [$rule]])],
        'readings' => [...rows('K', '2025-04', $lastYear), ...rows('K', '2026-04', ['10', '10', '10'])],
        'targets' => [['kpi' => 'K', 'unit' => 'ORG', 'period' => 'FY2026', 'target' => '120']],
    ]), '2026-06')['assessments']['K ORG']['spans']['yearToDate'];

    expect($span['status'])->toBe($status)->and($span['reason'])->toContain($words);
})->with([
    'the whole of it, where nothing is said' => ['', [], 'red', '25 % of the year target reached.'],
    // 30 of 120 × 3 ÷ 12
    'an even share' => ['even', [], 'green', '100 % of an even share of the year target by now reached.'],
    // 120 × 36 ÷ 120 = 36, of which 30 is 83.3 %
    'last year’s shape' => ['last-year', ['12', '12', '12', ...array_fill(0, 7, '9'), '10', '11'], 'red', '83.3 % of what the year target asks for by now'],
    'a shape with a hole: an even share' => ['last-year', ['12', '12', '12', null, ...array_fill(0, 8, '9')], 'green', '100 %'],
]);

it('refuses a stretch that is looser than green, and a pace without a year target', function (array $rule, string $problem) {
    expect(problems(book(['kpis' => [kpi('K', ['accumulation' => 'sum', 'rules' => [['from' => '2020-01', ...$rule]]])]])))->toBe([$problem]);
})->with([
    'a stretch' => [['reference' => 'none', 'measure' => 'level', 'green' => '90', 'amber' => '80', 'stretch' => '89'], '/kpis/0/rules/0/stretch pairing A stretch lies beyond on course: 90 or higher.'],
    'a pace' => [['reference' => 'target', 'measure' => 'reached', 'green' => '90', 'amber' => '80', 'pace' => 'even'], '/kpis/0/rules/0/pace pairing Only a comparison with the year target has a pace.'],
]);
