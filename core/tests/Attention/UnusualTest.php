<?php

declare(strict_types=1);

use Kybernet\Core\Attention\Unusual;
use Kybernet\Core\Measure\Exact;
use Kybernet\Core\Trend\ControlChart;

// Centre 10, mean moving range 1, so the limits are 10 ± 2.66 (NIST/SEMATECH e-Handbook, 6.3.2.2).
function steady(): ?ControlChart
{
    return ControlChart::of([9.5, 10.5, 9.5, 10.5, 9.5, 10.5, 9.5, 10.5], []);
}

it('asks about a figure outside its own limits, or ten times the one before', function (string $figure, ?string $previous, bool $hasChart, ?string $question) {
    $unusual = Unusual::of(Exact::of($figure), $previous === null ? null : Exact::of($previous), $hasChart ? steady() : null);

    expect($unusual?->question(2))->toBe($question);
})->with([
    'inside' => ['12.5', '10', true, null],
    'on the limit' => ['12.66', '10', true, null],
    'above' => ['12.67', '10', true, 'It usually lies between 7.34 and 12.66. Is that right?'],
    'below' => ['7.33', '10', true, 'It usually lies between 7.34 and 12.66. Is that right?'],
    'ten times' => ['100', '10', true, 'Ten times the figure before, or more. Is that right?'],
    'ten times, on the other side' => ['-100', '10', false, 'Ten times the figure before, or more. Is that right?'],
    'not quite ten times' => ['99.99', '10', false, null],
    'after zero' => ['5', '0', false, null],
    'nothing known' => ['5', null, false, null],
]);
