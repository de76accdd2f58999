<?php

declare(strict_types=1);

use Brick\Math\BigDecimal;
use Kybernet\Core\Calendar\Span;
use Kybernet\Core\Measure\Accumulation;
use Kybernet\Core\Measure\Display;
use Kybernet\Core\Measure\Exact;
use Kybernet\Core\Measure\Series;
use Kybernet\Core\Status\Polarity;
use Kybernet\Core\Status\Status;

use function Kybernet\Core\Tests\anyFigure;
use function Kybernet\Core\Tests\assessed;
use function Kybernet\Core\Tests\book;
use function Kybernet\Core\Tests\kpi;
use function Kybernet\Core\Tests\levelRule;
use function Kybernet\Core\Tests\measured;
use function Kybernet\Core\Tests\month;
use function Kybernet\Core\Tests\monthly;
use function Kybernet\Core\Tests\percentRule;
use function Kybernet\Core\Tests\scorecard;

beforeEach(fn () => mt_srand(20261123));

it('changes no status when all values are scaled', function () {
    for ($round = 0; $round < 150; $round++) {
        $polarity = [Polarity::Higher, Polarity::Lower][$round % 2];
        $actuals = array_map(fn (): string => (string) mt_rand(-900, 900), range(1, 5));
        $targets = array_map(fn (): string => (string) mt_rand(-900, 900), range(1, 5));
        $factor = (string) (mt_rand(1, 4000) / 1000);
        $scaled = fn (array $figures): array => array_map(fn (string $figure): string => (string) BigDecimal::of($figure)->multipliedBy($factor), $figures);
        $status = fn (array $actuals, array $targets): Status => scorecard()->status(
            measured($polarity, Accumulation::Mean, [percentRule($polarity, '1', '7')], monthly('2026-04', $actuals), monthly('2026-04', $targets)),
            month('2026-08'),
            Span::YearToDate,
        );

        expect($status($scaled($actuals), $scaled($targets)))->toBe($status($actuals, $targets));
    }
});

it('gathers quarter by quarter what it gathers at once', function () {
    $series = new Series(monthly('2026-04', array_map(fn (): string => anyFigure(), range(1, 12))));
    $quarters = array_chunk(month('2026-04')->to(month('2027-03')), 3);
    $sum = array_reduce($quarters, fn (Exact $sum, array $months): Exact => $sum->plus(Accumulation::Sum->gather($series, $months) ?? Exact::of(0)), Exact::of(0));

    expect($sum->compareTo(Accumulation::Sum->gather($series, array_merge(...$quarters)) ?? Exact::of(0)))->toBe(0);
});

it('never shows a thousand of anything where a larger step exists', function () {
    for ($round = 0; $round < 300; $round++) {
        $figure = (string) (mt_rand(1, 999_999) * 10 ** mt_rand(0, 5));
        $display = Display::of(Exact::of($figure), mt_rand(0, 2), true);

        expect(abs((float) $display->digits))->toBeLessThan(1000.0)
            ->and(abs((float) $display->digits * ['' => 1, 'k' => 1e3, 'm' => 1e6, 'bn' => 1e9][$display->suffix] / (float) $figure - 1))->toBeLessThan(0.5);
    }
});

it('follows a streak through the months, past a gap, and no further than the other colour', function () {
    $kpi = measured(Polarity::Lower, Accumulation::Mean, [levelRule(Polarity::Lower, '10', '12')], monthly('2026-01', ['11', '13', null, '14', '15']));
    $streak = scorecard()->streak($kpi, month('2026-05'));

    expect($streak?->status)->toBe(Status::Red)->and($streak?->length)->toBe(3)
        ->and(scorecard()->streak($kpi, month('2025-12')))->toBeNull();
});

it('shades levels of a total by the months that are compared', function () {
    $kpi = measured(Polarity::Lower, Accumulation::Sum, [levelRule(Polarity::Lower, '10', '12.5')], monthly('2026-04', ['9', null, '9']));
    $zones = scorecard()->assess($kpi, month('2026-06'), Span::Quarter)->zones();

    expect((string) $zones?->green)->toBe('20')->and((string) $zones?->amber)->toBe('25');
});

/**
 * A KPI with a random rule set, actuals and targets; the same with every value and limit of its own measure scaled, or
 * with polarity and sign turned around.
 */
function anyJudged(float $scale = 1.0, bool $mirrored = false): array
{
    $polarity = ['higher', 'lower', 'band'][mt_rand(0, 2)];
    $pairings = ['target percent', 'target absolute', 'none level', ...($polarity === 'band' ? [] : ['target reached', 'prior-year percent', 'prior-year absolute', 'recent percent'])];
    [$reference, $measure] = explode(' ', $pairings[mt_rand(0, count($pairings) - 1)]);
    $sign = $mirrored ? -1 : 1;
    $value = fn (float|int $figure): string => (string) BigDecimal::of((string) $figure)->multipliedBy((string) ($scale * $sign));
    $size = fn (float|int $figure): string => (string) BigDecimal::of((string) $figure)->multipliedBy((string) $scale);
    [$low, $high] = [mt_rand(-60, 40), mt_rand(0, 50)];
    [$green, $more] = [mt_rand(0, 10), mt_rand(0, 20)];
    [$below, $above] = [mt_rand(0, 10), mt_rand(0, 10)];
    $rule = ['from' => '2020-01', 'reference' => $reference, 'measure' => $measure] + match (true) {
        $measure === 'level' && $polarity === 'band' => $mirrored
            ? ['low' => $value($low + $high), 'high' => $value($low), 'marginLow' => $size($above), 'marginHigh' => $size($below)]
            : ['low' => $value($low), 'high' => $value($low + $high), 'marginLow' => $size($below), 'marginHigh' => $size($above)],
        $measure === 'level' => ['green' => $value($low), 'amber' => $value($polarity === 'higher' ? $low - $more : $low + $more)],
        $measure === 'reached' => ['green' => (string) (90 + $green), 'amber' => (string) (90 + $green - $more)],
        $measure === 'absolute' => ['green' => $size($green), 'amber' => $size($green + $more)],
        default => ['green' => (string) $green, 'amber' => (string) ($green + $more)],
    };
    if ($reference === 'recent') {
        $rule['periods'] = 2;
    }
    $readings = $targets = [];
    for ($back = 0; $back < 16; $back++) {
        $month = month('2026-08')->plus(-$back)->key();
        $actual = mt_rand(-80, 80);
        $target = mt_rand(-60, 60);
        $width = mt_rand(0, 40);
        $readings[] = ['kpi' => 'K', 'unit' => 'ORG', 'period' => $month, 'actual' => $value($actual)];
        $targets[] = ['kpi' => 'K', 'unit' => 'ORG', 'period' => $month] + ($polarity === 'band'
            ? ['low' => $value($mirrored ? $target + $width : $target), 'high' => $value($mirrored ? $target : $target + $width)]
            : ['target' => $value($target)]);
    }
    $turned = ['higher' => 'lower', 'lower' => 'higher', 'band' => 'band'][$polarity];
    $kpi = kpi('K', ['polarity' => $mirrored ? $turned : $polarity, 'accumulation' => ['sum', 'mean', 'latest'][mt_rand(0, 2)], 'rules' => [$rule]]);

    // A share of a figure below 0 is not judged, so a mirrored one is another question.
    return [book(['kpis' => [$kpi], 'readings' => $readings, 'targets' => $targets]), $measure === 'reached'];
}

/** Statuses of the four spans. */
function colours(array $book): array
{
    return array_column(assessed($book)['assessments']['K ORG']['spans'], 'status');
}

it('changes no status when all values and limits are scaled, whatever the rule', function () {
    for ($round = 0; $round < 150; $round++) {
        [[$plain], [$scaled]] = array_map(function (float $scale) use ($round): array {
            mt_srand($round);

            return anyJudged($scale);
        }, [1.0, [0.25, 3.0, 1250.0][$round % 3]]);
        expect(colours($scaled))->toBe(colours($plain), json_encode($plain['kpis']));
    }
});

it('mirrors every status when polarity and sign are turned around, whatever the rule', function () {
    $mirrors = 0;
    for ($round = 0; $round < 150; $round++) {
        [[$plain, $isShare], [$mirrored]] = array_map(function (bool $turn) use ($round): array {
            mt_srand($round);

            return anyJudged(1.0, $turn);
        }, [false, true]);
        if (! $isShare) {
            expect(colours($mirrored))->toBe(colours($plain), json_encode($plain['kpis']));
            $mirrors++;
        }
    }
    expect($mirrors)->toBeGreaterThan(100);
});

it('never improves a status when the actual gets worse, whatever the rule', function () {
    $order = ['red' => 0, 'amber' => 1, 'green' => 2];
    $compared = 0;
    for ($round = 0; $round < 200; $round++) {
        mt_srand($round);
        [$book] = anyJudged();
        $polarity = $book['kpis'][0]['polarity'];
        if ($polarity === 'band') {
            continue;
        }
        $worse = $book;
        $worse['readings'][0]['actual'] = (string) ((int) $book['readings'][0]['actual'] + ($polarity === 'higher' ? -1 : 1) * mt_rand(1, 60));
        [$before, $after] = [colours($book), colours($worse)];
        foreach ($before as $span => $colour) {
            if (isset($order[$colour], $order[$after[$span]])) {
                expect($order[$after[$span]])->toBeLessThanOrEqual($order[$colour], json_encode($book['kpis']));
                $compared++;
            }
        }
    }
    expect($compared)->toBeGreaterThan(200);
});

it('gathers month by month what it gathers at once', function (Accumulation $rule) {
    for ($round = 0; $round < 60; $round++) {
        $figures = array_map(fn (): Exact => Exact::of(anyFigure()), range(1, 12));
        $step = array_shift($figures);
        $all = [$step];
        foreach ($figures as $figure) {
            $step = $rule->combine([$step, $figure]);
            $all[] = $figure;
        }
        expect($step->compareTo($rule->combine($all)))->toBe(0);
    }
})->with([Accumulation::Sum, Accumulation::Latest, Accumulation::Maximum, Accumulation::Minimum]);

it('places no figure at odds with its status, moves right when the actual gets better, and does not mind the measure', function () {
    $compared = $moved = 0;
    for ($round = 0; $round < 120; $round++) {
        mt_srand($round);
        [$book] = anyJudged();
        mt_srand($round);
        [$scaled] = anyJudged(1250.0);
        $better = $book;
        $polarity = $book['kpis'][0]['polarity'];
        $better['readings'][0]['actual'] = (string) BigDecimal::of($book['readings'][0]['actual'])->plus($polarity === 'higher' ? 7 : -7);
        [$spans, $larger, $ahead] = array_map(fn (array $each): array => assessed($each)['assessments']['K ORG']['spans'], [$book, $scaled, $better]);
        foreach ($spans as $name => $span) {
            $place = $span['course']['now'] ?? null;
            $is = match (true) {
                $place === null => null,
                $place <= 0 => 'green',
                $place <= 1 => 'amber',
                default => 'red',
            };
            expect($is)->toBe(in_array($span['status'], ['green', 'amber', 'red'], true) ? $span['status'] : null, json_encode($book['kpis']));
            if ($place === null) {
                continue;
            }
            foreach (['now', 'before', 'prior', 'target'] as $mark) {
                expect($larger[$name]['course'][$mark] === null)->toBe($span['course'][$mark] === null)
                    ->and(abs(($larger[$name]['course'][$mark] ?? 0) - ($span['course'][$mark] ?? 0)))->toBeLessThan(1e-9 * (1 + abs($span['course'][$mark] ?? 0)), json_encode($book['kpis']));
            }
            $compared++;
            if ($polarity !== 'band' && isset($ahead[$name]['course'])) {
                expect($ahead[$name]['course']['now'])->toBeLessThanOrEqual($place, json_encode($book['kpis']));
                $moved++;
            }
        }
    }
    expect($compared)->toBeGreaterThan(200)->and($moved)->toBeGreaterThan(100);
});
