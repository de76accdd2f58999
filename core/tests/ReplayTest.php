<?php

declare(strict_types=1);

use Kybernet\Core\Calendar\FinancialYear;
use Kybernet\Core\Calendar\Frequency;
use Kybernet\Core\Calendar\Period;
use Kybernet\Core\Calendar\Timeline;
use Kybernet\Core\Measure\Measurement;
use Kybernet\Core\Replay;
use Kybernet\Core\Scorecard;
use Kybernet\Core\Status\Status;
use Kybernet\Core\Workbook\Sourcing;

use function Kybernet\Core\Tests\book;
use function Kybernet\Core\Tests\kpi;
use function Kybernet\Core\Tests\reader;
use function Kybernet\Core\Tests\rows;

/** @param  array<string, mixed>  $parts */
function workbookText(array $parts): string
{
    return json_encode(book($parts), JSON_THROW_ON_ERROR);
}

/** A KPI of three months that is judged by levels, and the same with others. */
function replayed(string $amber): Replay
{
    $book = reader()->read(workbookText([
        'kpis' => [kpi('K', ['rules' => [['from' => '2026-04', 'reference' => 'none', 'measure' => 'level', 'green' => '10', 'amber' => '8']]])],
        'readings' => rows('K', '2026-04', ['12', '8', '7']),
    ]));
    $year = new FinancialYear(4);
    $asIs = $book->composition(new Timeline($year))->measurement('K', 'ORG') ?? throw new LogicException;
    $other = reader()->read(workbookText(['kpis' => [kpi('K', ['rules' => [['from' => '2000-01', 'reference' => 'none', 'measure' => 'level', 'green' => '10', 'amber' => $amber]]])]]));
    $asTyped = new Measurement($other->kpis[0]->definition, $asIs->actuals, $asIs->targets);

    return Replay::of(new Scorecard($year), $asIs, $asTyped, Period::parse('2026-06'), 4);
}

it('tells twice how the latest periods are judged, and what would change', function (string $amber, array $typed, array $changed, string $words) {
    $replay = replayed($amber);

    expect(array_column($replay->asIs, 'value'))->toBe(['green', 'amber', 'red'])->and(array_column($replay->asTyped, 'value'))->toBe($typed)
        ->and(array_values(array_map(fn (int $place): string => $replay->periods[$place]->key(), array_filter(array_keys($replay->periods), $replay->changes(...)))))->toBe($changed)->and($replay->words())->toBe($words)
        ->and($replay->countsAsIs()->red)->toBe(1)->and($replay->countsAsTyped()->red)->toBe(count(array_keys($typed, Status::Red->value, true)));
})->with([
    'the same' => ['8', ['green', 'amber', 'red'], [], 'No month would change.'],
    'looser' => ['7', ['green', 'amber', 'amber'], ['2026-06'], 'One month would change, from off course to drifting.'],
    'tighter' => ['9', ['green', 'red', 'red'], ['2026-05'], 'One month would change, from drifting to off course.'],
]);

it('assesses one period of any frequency, and finds those that end in a month', function () {
    $book = reader()->read(workbookText([
        'kpis' => [kpi('W', ['frequency' => 'week', 'accumulation' => 'sum']), kpi('Q', ['frequency' => 'quarter'])],
        'readings' => [['kpi' => 'W', 'unit' => 'ORG', 'period' => '2026-W22', 'actual' => '4'], ['kpi' => 'W', 'unit' => 'ORG', 'period' => '2026-W23', 'actual' => '6']],
    ]));
    $scorecard = new Scorecard(new FinancialYear(4));
    $composition = $book->composition($scorecard->timeline);
    $weekly = $composition->measurement('W', 'ORG') ?? throw new LogicException;
    $keys = fn (string $kpi, string $month): array => array_map(fn (Period $period): string => $period->key(), $scorecard->ending($composition->measurement($kpi, 'ORG') ?? throw new LogicException, Period::parse($month)));

    // ISO 8601: the weeks of June 2026 are those whose Thursdays lie in it, the 4th, 11th, 18th and 25th.
    expect($keys('W', '2026-06'))->toBe(['2026-W23', '2026-W24', '2026-W25', '2026-W26'])->and($keys('Q', '2026-06'))->toBe(['FY2026-Q1'])->and($keys('Q', '2026-05'))->toBe([])
        ->and((string) $scorecard->assessPeriod($weekly, Period::parse('2026-W23', Frequency::Week))->figures->actual)->toBe('6')
        ->and((string) $scorecard->assessPeriod($weekly, Period::parse('2026-W23', Frequency::Week))->step?->difference)->toBe('2');
});

it('keeps asking until a KPI can be relied on', function (Sourcing $sourcing, bool $hasOwner, bool $isTyped, array $open) {
    expect($sourcing->openQuestions($hasOwner, $isTyped))->toBe($open);
})->with([
    'nothing known' => [new Sourcing, false, true, ['Where do its figures come from?', 'Can it be measured today?', 'Who enters it?', 'Is its definition agreed?']],
    'all known' => [new Sourcing('Ledger', 8, true, true), true, true, []],
    'worked out: no source and no owner of its own' => [new Sourcing(null, null, true, true), false, false, []],
    'not agreed' => [new Sourcing('Ledger', null, true, false), true, true, ['Is its definition agreed?']],
]);

it('reads the frequency of a period from its text', function (string $period, Frequency $frequency) {
    expect(Frequency::ofKey($period))->toBe($frequency);
})->with([['2026-08', Frequency::Month], ['2026-W34', Frequency::Week], ['FY2026-Q2', Frequency::Quarter], ['FY2026', Frequency::Year]]);
