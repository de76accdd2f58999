<?php

declare(strict_types=1);

use Brick\Math\BigDecimal;
use Kybernet\Core\Measure\InWords;

it('writes a figure for the middle of a sentence', function (string $figure, string $measure, string $words) {
    expect(InWords::measured(BigDecimal::of($figure), $measure))->toBe($words);
})->with([
    'four digits stay together' => ['1234.50', '', '1234.5'],
    'five do not' => ['12345', '', "12\u{202F}345"],
    'groups are counted from the point' => ['-1234567.0001', '', "\u{2212}1\u{202F}234\u{202F}567.0001"],
    'zeros that say nothing' => ['100.00', '%', '100 %'],
    'a measure behind' => ['0.04', 'Ml/d', '0.04 Ml/d'],
    'a currency before, but behind the sign' => ['-250000', '£', "\u{2212}£250\u{202F}000"],
    'a currency' => ['7', '€', '€7'],
    'what only begins like a currency' => ['7', '£k', '7 £k'],
]);
