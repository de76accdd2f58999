<?php

declare(strict_types=1);

use Kybernet\Core\Status\Polarity;
use Kybernet\Core\Trend\Track;

use function Kybernet\Core\Tests\measured;
use function Kybernet\Core\Tests\month;
use function Kybernet\Core\Tests\monthly;
use function Kybernet\Core\Tests\scorecard;

/** @param  list<string|null>  $figures  the last of them of August 2026 */
function trackOf(array $figures, Polarity $polarity = Polarity::None): ?Track
{
    $kpi = measured($polarity, actuals: monthly(month('2026-08')->plus(1 - count($figures))->key(), $figures));

    return scorecard()->track($kpi, month('2026-08'));
}

it('lays what is only counted between the lowest and the highest of its last 25 periods', function (array $figures, string $low, string $high, ?float $now, ?float $before, ?float $prior) {
    $track = trackOf($figures);

    expect([(string) $track?->low, (string) $track?->high])->toBe([$low, $high])
        ->and([$track?->now, $track?->before, $track?->prior])->toEqual([$now, $before, $prior]);
})->with([
    'between them' => [['10', '30', '15'], '10', '30', 0.25, 1.0, null],
    'at the lowest, and below 0' => [['4', '0', '-4'], '-4', '4', 0.0, 0.5, null],
    'no figure for the month' => [['10', '30', null], '10', '30', null, 1.0, null],
    'constant: in the middle' => [['7', '7'], '7', '7', 0.5, 0.5, null],
    'a year earlier' => [['30', ...array_fill(0, 11, '10'), '20'], '10', '30', 0.5, 0.0, 1.0],
    'the 25th counts' => [['90', ...array_fill(0, 23, '10'), '50'], '10', '90', 0.5, 0.0, 0.0],
    'the 26th does not' => [['90', ...array_fill(0, 24, '10'), '50'], '10', '50', 1.0, 0.0, 0.0],
]);

it('has no track where a KPI is judged, and none without a figure', function () {
    expect(trackOf(['10', '30'], Polarity::Lower))->toBeNull()
        ->and(trackOf([null, null]))->toBeNull();
});
