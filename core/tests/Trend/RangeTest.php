<?php

declare(strict_types=1);

use Kybernet\Core\Trend\Normal;
use Kybernet\Core\Trend\Regression;
use Kybernet\Core\Trend\StudentT;

use function Kybernet\Core\Tests\assessed;
use function Kybernet\Core\Tests\book;
use function Kybernet\Core\Tests\kpi;
use function Kybernet\Core\Tests\rows;

// Values of tables that every handbook of statistics prints, here those of the NIST/SEMATECH e-Handbook, 1.3.6.7.1 and
// 1.3.6.7.2, from memory.
it('has the probabilities of the normal distribution', function (float $z, float $below) {
    expect(Normal::below($z))->toEqualWithDelta($below, 5e-6)->and(Normal::below(-$z))->toEqualWithDelta(1 - $below, 5e-6);
})->with([[0.0, 0.5], [0.5, 0.69146], [1.0, 0.84134], [1.28, 0.89973], [1.645, 0.95002], [1.96, 0.97500], [2.0, 0.97725], [2.5, 0.99379], [3.0, 0.99865], [4.0, 0.99997]]);

it('has nine in ten of the normal distribution below the constant of the rules, and adds up to one', function () {
    expect(Normal::below(1.2815515655446))->toEqualWithDelta(0.9, 1e-13);
    foreach (range(-60, 60) as $tenth) {
        expect(Normal::below($tenth / 10) + Normal::below(-$tenth / 10))->toEqualWithDelta(1.0, 1e-14)
            // A distribution with very many degrees of freedom is all but normal.
            ->and(StudentT::below($tenth / 10, 20_000))->toEqualWithDelta(Normal::below($tenth / 10), 1e-4);
    }
});

it('has the ninetieth percentiles of Student’s distribution', function (int $freedom, float $t) {
    expect(StudentT::ninetieth($freedom))->toEqualWithDelta($t, 5e-4)->and(StudentT::below(StudentT::ninetieth($freedom), $freedom))->toEqualWithDelta(0.9, 1e-12);
})->with([[1, 3.078], [2, 1.886], [3, 1.638], [4, 1.533], [5, 1.476], [8, 1.397], [10, 1.372], [20, 1.325], [30, 1.310], [100, 1.290]]);

it('has the prediction error of a line', function () {
    // Anscombe (1973), the first set; the residual standard error 1.237 on 9 degrees of freedom is the published one.
    $line = Regression::fit([10., 8., 13., 9., 11., 14., 6., 4., 12., 7., 5.], [8.04, 6.95, 7.58, 8.81, 8.33, 9.96, 7.24, 4.26, 10.84, 4.82, 5.68]);

    expect($line->residualError)->toEqualWithDelta(1.237, 5e-4)
        // At the mean of x nothing is added but the error of the mean; x̄ = 9, Sxx = 110.
        ->and($line->predictionError(9))->toEqualWithDelta($line->residualError * sqrt(1 + 1 / 11), 1e-12)
        ->and($line->predictionError(20))->toEqualWithDelta($line->residualError * sqrt(1 + 1 / 11 + 121 / 110), 1e-12);
});

/** @return array<string, mixed> the projection of a KPI with two years and five months of figures that move by 2 */
function projectionOf(array $kpi, array $target = ['target' => '50'], array $readings = []): array
{
    $moving = array_map(fn (int $at): string => $at % 2 === 0 ? '50' : '52', range(0, 28));
    $book = book([
        'kpis' => [kpi('K', ['polarity' => 'lower', 'rules' => [['from' => '2020-01', 'reference' => 'target', 'measure' => 'percent', 'green' => '0', 'amber' => '5']], ...$kpi])],
        'readings' => $readings === [] ? rows('K', '2024-04', $moving) : $readings,
        'targets' => $target === [] ? [] : [['kpi' => 'K', 'unit' => 'ORG', 'period' => 'FY2026'] + $target],
    ]);

    return assessed($book)['assessments']['K ORG']['projection'];
}

it('reaches as far as the KPI varies, four times in five', function () {
    // Moving by 2: σ = 2 ÷ 1.128; 7 months are left after August.
    $deviation = 2 / 1.128 * sqrt(7);
    $total = projectionOf(['accumulation' => 'sum'], ['target' => '612']);
    expect(($total['high'] - $total['low']) / 2)->toEqualWithDelta(1.2815515655446 * $deviation, 1e-9)
        ->and($total['chance'])->toEqualWithDelta(Normal::below((612 - (float) $total['value']) / $deviation), 1e-12);

    $mean = projectionOf(['accumulation' => 'mean']);
    expect(($mean['high'] - $mean['low']) / 2)->toEqualWithDelta(1.2815515655446 * $deviation / 12, 1e-9)
        ->and($mean['chance'])->toEqualWithDelta(Normal::below((50 - (float) $mean['value']) / ($deviation / 12)), 1e-12);

    $latest = projectionOf(['accumulation' => 'latest']);
    expect($latest['method'])->toBe('last-value')->and(($latest['high'] - $latest['low']) / 2)->toEqualWithDelta(1.2815515655446 * $deviation, 1e-9);
});

it('follows the error of the line where the trend goes on', function () {
    $rising = rows('K', '2025-09', ['10', '11', '13', '13', '15', '16', '16', '18', '19', '21', '21', '23']);
    $projection = projectionOf(['accumulation' => 'latest', 'polarity' => 'higher'], ['target' => '30'], $rising);
    $line = Regression::fit(array_map(floatval(...), range(1, 12)), [10., 11., 13., 13., 15., 16., 16., 18., 19., 21., 21., 23.]);

    // August is place 12, March place 19.
    expect($projection['method'])->toBe('trend-line')
        ->and($projection['high'] - (float) $projection['value'])->toEqualWithDelta(StudentT::ninetieth(10) * $line->predictionError(19), 1e-9)
        ->and($projection['chance'])->toEqualWithDelta(StudentT::below(((float) $projection['value'] - 30) / $line->predictionError(19), 10), 1e-9);
});

it('keeps inside the bounds, and knows nothing where nothing can be known', function () {
    $bounded = projectionOf(['accumulation' => 'latest', 'max' => '52.5', 'min' => '49']);
    expect($bounded['high'])->toBe(52.5)->and($bounded['low'])->toBe(49);

    expect(projectionOf(['accumulation' => 'maximum']))->toMatchArray(['low' => null, 'high' => null, 'chance' => null])
        ->and(projectionOf(['accumulation' => 'mean'], readings: rows('K', '2026-04', ['50', '52', '50', '52', '50'])))->toMatchArray(['low' => null, 'chance' => null])
        ->and(projectionOf(['accumulation' => 'mean'], []))->toMatchArray(['chance' => null])
        ->and(projectionOf(['accumulation' => 'mean', 'polarity' => 'none', 'rules' => []])['chance'])->toBeNull();
});

it('is sure where the KPI never varies', function () {
    $still = rows('K', '2024-04', array_fill(0, 29, '50'));

    expect(projectionOf(['accumulation' => 'mean'], ['target' => '50'], $still))->toMatchArray(['low' => 50, 'high' => 50, 'chance' => 1])
        ->and(projectionOf(['accumulation' => 'mean'], ['target' => '49'], $still)['chance'])->toEqual(0);
});

it('ends inside a band as likely as between its two limits', function () {
    $rules = [['from' => '2020-01', 'reference' => 'target', 'measure' => 'absolute', 'green' => '0', 'amber' => '1']];
    $projection = projectionOf(['accumulation' => 'latest', 'polarity' => 'band', 'rules' => $rules], ['low' => '48', 'high' => '53']);
    $deviation = 2 / 1.128 * sqrt(7);

    expect($projection['chance'])->toEqualWithDelta(Normal::below((53 - 50) / $deviation) - Normal::below((48 - 50) / $deviation), 1e-12);
});
