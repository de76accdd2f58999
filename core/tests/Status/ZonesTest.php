<?php

declare(strict_types=1);

use Kybernet\Core\Calendar\Span;
use Kybernet\Core\Calendar\Timeline;
use Kybernet\Core\Scorecard;
use Kybernet\Core\Status\Zones;

use function Kybernet\Core\Tests\book;
use function Kybernet\Core\Tests\kpi;
use function Kybernet\Core\Tests\month;
use function Kybernet\Core\Tests\reader;
use function Kybernet\Core\Tests\rows;

/** The zones of a KPI on the quarter of 2026-04 and 2026-05, with a target of 10, or a band of 8 to 10, in each. */
function zones(array $rule, array $kpi, array $actuals, bool $withTargets = true): ?Zones
{
    $isBand = ($kpi['polarity'] ?? '') === 'band';
    $targets = array_map(fn (string $month): array => ['kpi' => 'K', 'unit' => 'ORG', 'period' => $month] + ($isBand ? ['low' => '8', 'high' => '10'] : ['target' => $kpi['target'] ?? '10']), ['2026-04', '2026-05']);
    unset($kpi['target']);
    $workbook = reader()->read(json_encode(book([
        'kpis' => [kpi('K', ['rules' => $rule === [] ? [] : [['from' => '2026-01', ...$rule]], ...$kpi])],
        'readings' => [...rows('K', '2025-04', ['20', '20']), ...rows('K', '2026-04', $actuals)],
        'targets' => $withTargets ? $targets : [],
    ])));
    $measurement = $workbook->composition(new Timeline($workbook->year))->measurement('K', 'ORG');

    return (new Scorecard($workbook->year))->assess($measurement, month('2026-05'), Span::Quarter)->zones();
}

it('ends its zones where the status changes', function (array $rule, array $kpi, array $actuals, string $green, string $amber) {
    $zones = zones($rule, $kpi, $actuals);

    expect([(string) $zones?->green, (string) $zones?->amber, $zones?->greenBand, $zones?->amberBand])->toBe([$green, $amber, null, null]);
})->with(function () {
    $both = ['9', '9'];
    yield 'percent' => [['reference' => 'target', 'measure' => 'percent', 'green' => '10', 'amber' => '20'], [], $both, '9', '8'];
    yield 'percent, where lower is better' => [['reference' => 'target', 'measure' => 'percent', 'green' => '10', 'amber' => '20'], ['polarity' => 'lower'], $both, '11', '12'];
    yield 'percent of a target below 0' => [['reference' => 'target', 'measure' => 'percent', 'green' => '10', 'amber' => '20'], ['target' => '-10'], $both, '-11', '-12'];
    yield 'absolute, of a total of two' => [['reference' => 'target', 'measure' => 'absolute', 'green' => '1', 'amber' => '2'], ['accumulation' => 'sum'], $both, '18', '16'];
    yield 'absolute, of a mean' => [['reference' => 'target', 'measure' => 'absolute', 'green' => '1', 'amber' => '2'], ['polarity' => 'lower'], $both, '11', '12'];
    yield 'reached' => [['reference' => 'target', 'measure' => 'reached', 'green' => '90', 'amber' => '75'], [], $both, '9', '7.5'];
    yield 'reached, where lower is better' => [['reference' => 'target', 'measure' => 'reached', 'green' => '90', 'amber' => '75'], ['polarity' => 'lower'], $both, '11', '12.5'];
    yield 'against last year' => [['reference' => 'prior-year', 'measure' => 'percent', 'green' => '10', 'amber' => '20'], [], $both, '18', '16'];
    yield 'levels' => [['reference' => 'none', 'measure' => 'level', 'green' => '9', 'amber' => '8'], [], $both, '9', '8'];
    yield 'levels of a total of one' => [['reference' => 'none', 'measure' => 'level', 'green' => '9', 'amber' => '8'], ['accumulation' => 'sum'], ['9', null], '9', '8'];
    yield 'of the target, where nothing is reported' => [['reference' => 'target', 'measure' => 'percent', 'green' => '10', 'amber' => '20'], ['accumulation' => 'sum'], [null, null], '18', '16'];
});

it('has an end on both sides of a band', function (array $rule, array $ends) {
    $zones = zones($rule, ['polarity' => 'band'], ['9', '9']);

    expect([(string) $zones?->greenBand?->low, (string) $zones?->greenBand?->high, (string) $zones?->amberBand?->low, (string) $zones?->amberBand?->high, (string) $zones?->green, (string) $zones?->amber])
        ->toBe([...$ends, $ends[1], $ends[3]]);
})->with([
    'percent' => [['reference' => 'target', 'measure' => 'percent', 'green' => '0', 'amber' => '5'], ['8', '10', '7.6', '10.5']],
    'absolute' => [['reference' => 'target', 'measure' => 'absolute', 'green' => '0.5', 'amber' => '1'], ['7.5', '10.5', '7', '11']],
    'levels' => [['reference' => 'none', 'measure' => 'level', 'low' => '1', 'high' => '2', 'marginLow' => '0.1', 'marginHigh' => '0.2'], ['1', '2', '0.9', '2.2']],
]);

it('has no zones where no place on the scale decides', function (array $rule, array $kpi, bool $withTargets) {
    expect(zones($rule, $kpi, ['9', '9'], $withTargets))->toBeNull();
})->with([
    'tracked' => [[], ['polarity' => 'none'], true],
    'no limits' => [[], [], true],
    'no target' => [['reference' => 'target', 'measure' => 'percent', 'green' => '10', 'amber' => '20'], [], false],
    'no share of 0' => [['reference' => 'target', 'measure' => 'reached', 'green' => '90', 'amber' => '75'], ['target' => '0'], true],
]);

it('shows the zones of a year target on the year to date alone', function () {
    $workbook = reader()->read(json_encode(book([
        'kpis' => [kpi('K', ['accumulation' => 'sum', 'rules' => [['from' => '2026-01', 'reference' => 'year-target', 'measure' => 'reached', 'green' => '70', 'amber' => '30']]])],
        'readings' => rows('K', '2026-04', ['10', '10']),
        'targets' => [['kpi' => 'K', 'unit' => 'ORG', 'period' => 'FY2026', 'target' => '100']],
    ])));
    $measurement = $workbook->composition(new Timeline($workbook->year))->measurement('K', 'ORG');
    $zones = fn (string $month, Span $span): ?Zones => (new Scorecard($workbook->year))->assess($measurement, month($month), $span)->zones();

    expect((string) $zones('2026-05', Span::YearToDate)?->green)->toBe('70')
        // the first month is the year to date
        ->and((string) $zones('2026-04', Span::Month)?->green)->toBe('70')
        ->and($zones('2026-05', Span::Month))->toBeNull();
});
