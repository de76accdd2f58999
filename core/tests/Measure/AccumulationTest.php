<?php

declare(strict_types=1);

use Kybernet\Core\Measure\Accumulation;
use Kybernet\Core\Measure\Series;

use function Kybernet\Core\Tests\month;
use function Kybernet\Core\Tests\monthly;

it('gathers months by the rule of the KPI', function (Accumulation $rule, array $figures, ?string $gathered) {
    $months = month('2026-04')->to(month('2026-06'));
    $exact = $rule->gather(new Series(monthly('2026-04', $figures)), $months);

    expect($exact === null ? null : (string) $exact)->toBe($gathered);
})->with([
    // A monthly target of a million is three million a quarter for a total and stays itself for a level: common practice.
    'a total' => [Accumulation::Sum, ['1000000', '1000000', '1000000'], '3000000'],
    'a level by its mean' => [Accumulation::Mean, ['90', '90', '90'], '90'],
    'a level by its latest' => [Accumulation::Latest, ['92', '91', '90'], '90'],
    'a gap is not a zero' => [Accumulation::Mean, ['90', null, '91'], '90.5'],
    'the latest that there is' => [Accumulation::Latest, ['92', '91', null], '91'],
    'a mean that does not end' => [Accumulation::Mean, ['1', '1', '2'], '1.333333333333'],
    'decimals stay exact' => [Accumulation::Sum, ['0.1', '0.2', '0.00000001'], '0.30000001'],
    'nothing' => [Accumulation::Sum, [null, null, null], null],
]);
