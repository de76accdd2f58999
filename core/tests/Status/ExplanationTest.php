<?php

declare(strict_types=1);

use Kybernet\Core\Status\Explanation;

use function Kybernet\Core\Tests\assessed;
use function Kybernet\Core\Tests\book;
use function Kybernet\Core\Tests\kpi;
use function Kybernet\Core\Tests\reader;
use function Kybernet\Core\Tests\rows;

/**
 * The sentence of a KPI in bar with one decimal, at 2026-05; actuals start in 2026-04 and, a year before, the prior ones.
 *
 * @param  list<array<string, string>>  $targets  members of the targets of 2026-04 and 2026-05
 */
function sentence(array $rule, array $kpi, array $actuals, array $targets = [], array $prior = [], string $span = 'month'): string
{
    return assessed(book([
        'kpis' => [kpi('K', ['measure' => 'bar', 'decimals' => 1, 'rules' => $rule === [] ? [] : [['from' => '2026-01', ...$rule]], ...$kpi])],
        'readings' => [...rows('K', '2025-04', $prior), ...rows('K', '2026-04', $actuals)],
        'targets' => array_map(fn (array $target, int $index): array => ['kpi' => 'K', 'unit' => 'ORG', 'period' => ['2026-04', '2026-05'][$index], ...$target], $targets, array_keys($targets)),
    ]), '2026-05')['assessments']['K ORG']['spans'][$span]['reason'];
}

it('defends a status in one sentence', function (string $sentence, array $rule, array $kpi, array $actuals, array $targets = [], array $prior = [], string $span = 'month') {
    expect(sentence($rule, $kpi, $actuals, $targets, $prior, $span))->toBe($sentence);
})->with(function () {
    $percent = ['reference' => 'target', 'measure' => 'percent', 'green' => '0', 'amber' => '5'];
    $absolute = ['reference' => 'target', 'measure' => 'absolute', 'green' => '0', 'amber' => '1.5'];
    $two = [['target' => '10'], ['target' => '10']];
    $band = [['low' => '8', 'high' => '10'], ['low' => '8', 'high' => '10']];
    yield 'not reported' => ['No reading yet.', $percent, [], ['9', null], $two];
    yield 'no target' => ['Not judged: there is no target to compare with.', $percent, [], ['9', '9']];
    yield 'tracked' => ['Not judged: this KPI is only tracked.', [], ['polarity' => 'none'], ['9', '9']];
    yield 'no limits' => ['Not judged: no limits were in force yet.', [], [], ['9', '9'], $two];
    yield 'percent' => ['Drifting: 5 % under target. On course at target or better, drifting to 5 % under. Limits since January 2026.', $percent, [], ['9', '9.5'], $two];
    yield 'percent, where limits must be beaten' => ['Drifting: 2 % over target. On course from 2.5 % over, drifting from 1 % over. Limits since January 2026.', [...$percent, 'green' => '-2.5', 'amber' => '-1'], [], ['9', '10.2'], $two];
    yield 'a target below 0' => ['Off course: 10 % under target. On course at target or better, drifting to 5 % under. Limits since January 2026.', $percent, [], ['9', '-11'], [['target' => '-10'], ['target' => '-10']]];
    yield 'last year of 0' => ['On course: 3 bar where last year is 0. On course at last year or better, drifting to 5 % under. Limits since January 2026.', [...$percent, 'reference' => 'prior-year'], [], ['9', '3'], [], ['1', '0']];
    yield 'absolute, of a total' => ['Drifting: 2.5 bar over target. On course at target or better, drifting to 3 bar over. Limits since January 2026.', $absolute, ['polarity' => 'lower', 'accumulation' => 'sum'], ['11', '11.5'], $two, [], 'yearToDate'];
    yield 'exactly on target' => ['On course: exactly on target. On course at target or better, drifting to 1.5 bar under. Limits since January 2026.', $absolute, [], ['9', '10'], $two];
    yield 'exactly at last year' => ['On course: exactly at last year. On course at last year or better, drifting to 5 % under. Limits since January 2026.', [...$percent, 'reference' => 'prior-year'], [], ['9', '10'], [], ['9', '10']];
    yield 'against the period before' => ['Drifting: 4 % under the previous period. On course at the previous period or better, drifting to 5 % under. Limits since January 2026.', [...$percent, 'reference' => 'recent', 'periods' => 1], [], ['10', '9.6']];
    yield 'reached' => ['Drifting: 95 % of target reached. On course from 100 %, drifting from 90 %. Limits since January 2026.', ['reference' => 'target', 'measure' => 'reached', 'green' => '100', 'amber' => '90'], [], ['9', '9.5'], $two];
    yield 'reached, where lower is better' => ['Drifting: at 105 % of target, which counts as 95 %. On course from 100 %, drifting from 90 %. Limits since January 2026.', ['reference' => 'target', 'measure' => 'reached', 'green' => '100', 'amber' => '90'], ['polarity' => 'lower'], ['9', '10.5'], $two];
    yield 'no share of 0' => ['Not judged: there is no share of target, which is not above 0.', ['reference' => 'target', 'measure' => 'reached', 'green' => '100', 'amber' => '90'], [], ['9', '9.5'], [['target' => '1'], ['target' => '0']]];
    yield 'levels' => ['Drifting: at 9.5 bar. On course up to 9 bar, drifting up to 10 bar. Limits since January 2026.', ['reference' => 'none', 'measure' => 'level', 'green' => '9', 'amber' => '10'], ['polarity' => 'lower'], ['9', '9.5']];
    yield 'levels of a total' => ['On course: at 20 bar. On course from 18 bar, drifting from 16 bar. Limits since January 2026.', ['reference' => 'none', 'measure' => 'level', 'green' => '9', 'amber' => '8'], ['accumulation' => 'sum'], ['10', '10'], [], [], 'yearToDate'];
    yield 'inside a band' => ['On course: inside 8 bar to 10 bar. On course inside, drifting to 5 % outside. Limits since January 2026.', $percent, ['polarity' => 'band'], ['9', '9'], $band];
    yield 'below a band' => ['Off course: 1 bar below 8 bar to 10 bar (12.5 %). On course inside, drifting to 5 % outside. Limits since January 2026.', $percent, ['polarity' => 'band'], ['9', '7'], $band];
    yield 'above a band, in its measure' => ['Drifting: 1 bar above 8 bar to 10 bar. On course inside, drifting to 1.5 bar outside. Limits since January 2026.', $absolute, ['polarity' => 'band'], ['9', '11'], $band];
    yield 'levels of a band' => ['Drifting: at 7.5 bar. On course from 8 bar to 10 bar, drifting from 7 bar to 12 bar. Limits since January 2026.', ['reference' => 'none', 'measure' => 'level', 'low' => '8', 'high' => '10', 'marginLow' => '1', 'marginHigh' => '2'], ['polarity' => 'band'], ['9', '7.5']];
    yield 'below 0' => ["Off course: at \u{2212}3 bar. On course from 9 bar, drifting from 8 bar. Limits since January 2026.", ['reference' => 'none', 'measure' => 'level', 'green' => '9', 'amber' => '8'], [], ['10', '-3']];
    yield 'a stretch in sight' => ['On course: at 10 bar. On course from 9 bar, drifting from 8 bar. Stretch: 11 bar. Limits since January 2026.', ['reference' => 'none', 'measure' => 'level', 'green' => '9', 'amber' => '8', 'stretch' => '11'], [], ['10', '10']];
    yield 'a stretch reached' => ['On course: at 11 bar. On course from 9 bar, drifting from 8 bar. The stretch of 11 bar is reached. Limits since January 2026.', ['reference' => 'none', 'measure' => 'level', 'green' => '9', 'amber' => '8', 'stretch' => '11'], [], ['10', '11']];
    yield 'without a unit of measure' => ['On course: at 10. On course from 9, drifting from 8. Limits since January 2026.', ['reference' => 'none', 'measure' => 'level', 'green' => '9', 'amber' => '8'], ['measure' => ''], ['10', '10']];
    yield 'in money' => ["Off course: £1\u{202F}250\u{202F}000 under target. On course at target or better, drifting to £50\u{202F}000 under. Limits since January 2026.", [...$absolute, 'amber' => '50000'], ['measure' => '£'], ['9', '-250000'], [['target' => '1000000'], ['target' => '1000000']]];
    yield 'rounded, but not onto a limit' => ['Drifting: at 8.99 bar. On course from 9 bar, drifting from 8 bar. Limits since January 2026.', ['reference' => 'none', 'measure' => 'level', 'green' => '9', 'amber' => '8'], [], ['10', '8.99']];
    yield 'rounded, but not to 0' => ['Off course: 0.04 bar below 8 bar to 10 bar. On course inside, drifting to 0.01 bar outside. Limits since January 2026.', [...$absolute, 'amber' => '0.01'], ['polarity' => 'band'], ['9', '7.96'], $band];
});

it('says of a person’s colour what it is', function (string $accumulation, array $colours, string $span, string $sentence) {
    $readings = array_map(fn (array $row): array => [...$row, 'note' => 'Because.'], rows('M', '2026-04', $colours, 'status'));
    $book = book(['kpis' => [['code' => 'M', 'name' => 'M', 'kind' => 'judged', 'accumulation' => $accumulation, 'units' => [['unit' => 'ORG', 'to' => '2026-05']]]], 'readings' => $readings]);

    expect(assessed($book, $span === 'past' ? '2026-06' : '2026-05')['assessments']['M ORG']['spans'][$span === 'past' ? 'month' : $span]['reason'])->toBe($sentence);
})->with([
    ['latest', ['green', 'red'], 'yearToDate', 'Off course: judged by a person.'],
    ['mean', ['green', 'red'], 'month', 'Off course: judged by a person.'],
    ['mean', ['green', 'red'], 'yearToDate', 'Drifting: the mean of what was judged by a person, 1 between 0 and 2. On course from 1.5, drifting from 0.5.'],
    ['latest', ['green', null], 'month', 'No reading yet.'],
    ['latest', ['green', 'red'], 'past', 'Not judged: nothing was due.'],
]);

it('says what a rule set asks for', function (array $rule, array $kpi, string $words) {
    $text = json_encode(book(['kpis' => [kpi('K', ['measure' => 'bar', 'rules' => [['from' => '2026-01', ...$rule]], ...$kpi])]]), JSON_THROW_ON_ERROR);
    $definition = [...reader()->read($text)->entries()][0]->placed->definition;

    expect(Explanation::rule($definition, $definition->rules[0]))->toBe($words);
})->with([
    [['reference' => 'target', 'measure' => 'percent', 'green' => '2', 'amber' => '5'], [], 'Against target. On course to 2 % under, drifting to 5 % under.'],
    [['reference' => 'prior-year', 'measure' => 'absolute', 'green' => '0', 'amber' => '3'], ['polarity' => 'lower', 'accumulation' => 'sum'], 'Against last year. On course at last year or better, drifting to 3 bar over.'],
    [['reference' => 'recent', 'periods' => 3, 'measure' => 'reached', 'green' => '100', 'amber' => '90'], [], 'By the share of the mean of the previous 3 periods. On course from 100 %, drifting from 90 %.'],
    [['reference' => 'none', 'measure' => 'level', 'green' => '9', 'amber' => '8', 'stretch' => '11'], [], 'On course from 9 bar, drifting from 8 bar. Stretch: 11 bar.'],
]);
