<?php

declare(strict_types=1);

use Kybernet\Core\Calendar\Period;
use Kybernet\Core\Measure\Accumulation;
use Kybernet\Core\Measure\Exact;
use Kybernet\Core\Measure\Goal;
use Kybernet\Core\Measure\MovedTargets;
use Kybernet\Core\Measure\SameTargets;
use Kybernet\Core\Measure\Series;
use Kybernet\Core\Measure\SetTargets;
use Kybernet\Core\Measure\TargetFrom;
use Kybernet\Core\Measure\TargetLine;
use Kybernet\Core\Measure\Targets;

use function Kybernet\Core\Tests\assessed;
use function Kybernet\Core\Tests\book;
use function Kybernet\Core\Tests\kpi;
use function Kybernet\Core\Tests\month;
use function Kybernet\Core\Tests\problems;
use function Kybernet\Core\Tests\rows;

/*
 * Section 9 of the rules, computed targets. The figures are worked out by hand.
 */

/** The rule against targets: on target is green, up to 10 % worse amber. */
const AIMED = ['rules' => [['from' => '2020-01', 'reference' => 'target', 'measure' => 'percent', 'green' => '0', 'amber' => '10']]];

/**
 * COST is to stay within what the formula gives; the year began in April and August is chosen.
 *
 * @param  array<string, mixed>  $cost
 * @param  list<array<string, string>>  $targets
 * @param  list<array<string, string>>  $readings
 */
function costs(array $cost, array $targets = [], array $readings = [], array $others = []): array
{
    return book([
        'kpis' => [
            kpi('SALES', ['accumulation' => 'sum', ...AIMED]),
            kpi('STAFF', ['accumulation' => 'mean', ...AIMED]),
            ...$others,
            kpi('COST', ['accumulation' => 'sum', 'polarity' => 'lower', ...AIMED, ...$cost]),
        ],
        'readings' => [...rows('SALES', '2026-04', ['100', '200', '300', '400', '500']), ...rows('STAFF', '2026-04', ['10', '10', '20', '20', '40']), ...rows('COST', '2026-04', ['5', '11', '15', '20', '26']), ...$readings],
        'targets' => $targets,
    ]);
}

/** @return array<string, mixed> */
function costOn(string $span, array $book, string $month = '2026-08'): array
{
    return assessed($book, $month)['assessments']['COST ORG']['spans'][$span];
}

describe('a computed target', function (): void {
    it('is worked out in each period, and over a span from operands gathered by their own rules', function (string $formula, string $span, ?string $target, ?string $variance, string $status): void {
        $found = costOn($span, costs(['targetFormula' => $formula]));

        expect($found['target'])->toBe($target)->and($found['variance'])->toBe($variance)->and($found['status'])->toBe($status)
            ->and($found['targetFrom'])->toBe($target === null ? null : 'formula');
    })->with([
        'a share of a total in a month' => ['0.05 * SALES', 'month', '25', '1', 'amber'],
        'of a quarter: July and August' => ['0.05 * SALES', 'quarter', '45', '1', 'amber'],
        'of the year to date: 1,500' => ['0.05 * SALES', 'yearToDate', '75', '2', 'amber'],
        // A ratio of 1,500 to a mean of 20, and not the sum of 10, 20, 15, 20 and 12.5.
        'over a mean' => ['SALES / STAFF', 'yearToDate', '75', '2', 'amber'],
        'over a mean, one month' => ['SALES / STAFF', 'month', '12.5', '13.5', 'red'],
        'numbers, brackets and functions' => ['max(20, 0.01 * (SALES + STAFF))', 'month', '20', '6', 'red'],
    ]);

    it('counts a year before and the targets of others', function (string $formula, string $span, ?string $target): void {
        $book = costs(['targetFormula' => $formula], [...rows('SALES', '2026-04', ['90', '190', '290', '390', '490'], 'target')], [
            ...rows('COST', '2025-04', ['6', '12', '18', '24', '30']), ...rows('SALES', '2025-07', ['350', '450']),
        ]);

        expect(costOn($span, $book)['target'])->toBe($target);
    })->with([
        'its own last year, 5 % less' => ['0.95 * prior(COST)', 'month', '28.5'],
        'over the year to date: 90' => ['0.95 * prior(COST)', 'yearToDate', '85.5'],
        'the target of another' => ['0.05 * target(SALES)', 'month', '24.5'],
        'over the year to date: 1,450' => ['0.05 * target(SALES)', 'yearToDate', '72.5'],
        // April to June have no SALES a year before: July and August are compared.
        'only where there is a year before' => ['0.05 * prior(SALES)', 'yearToDate', '40'],
    ]);

    it('is none where it has no value, and those periods are not compared', function (): void {
        $found = costOn('yearToDate', costs(['targetFormula' => '0.1 * prior(SALES)'], [], rows('SALES', '2025-08', ['300'])));
        expect($found)->toMatchArray(['reported' => 5, 'compared' => 1, 'actual' => '77', 'target' => '30', 'variance' => '-4', 'status' => 'green']);
        // A divisor of 0 gives none either.
        expect(costOn('month', costs(['targetFormula' => '100 / (SALES - 500)'])))->toMatchArray(['compared' => 0, 'target' => null, 'targetFrom' => null, 'status' => 'not-judged', 'reason' => 'Not judged: there is no target to compare with, as the formula divides by zero.']);
    });

    it('says where a target comes from, and why there is none', function (): void {
        expect(costOn('month', costs(['targetFormula' => '0.05 * SALES']))['reason'])->toEndWith(' The target is worked out: 0.05 * SALES.')
            ->and(costOn('month', costs(['targetFormula' => '0.05 * prior(SALES)']))['reason'])->toBe('Not judged: there is no target to compare with, as prior(SALES) has no figure for August 2026.');
    });

    it('compares nothing over a span for which it has no value, though its periods have one', function (): void {
        // 1 and −1 add up to nothing to divide by.
        $book = costs(['targetFormula' => '10 / GAIN'], [], rows('GAIN', '2026-07', ['1', '-1']), [kpi('GAIN', ['accumulation' => 'sum', 'polarity' => 'none', 'rules' => []])]);

        expect(costOn('month', $book)['target'])->toBe('-10')
            ->and(costOn('quarter', $book))->toMatchArray(['reported' => 2, 'compared' => 0, 'target' => null, 'variance' => null, 'status' => 'not-judged']);
    });

    it('shows that of the whole span where nothing is reported yet', function (): void {
        $book = costs(['targetFormula' => '0.05 * SALES'], [], rows('SALES', '2026-09', ['600']));

        expect(costOn('month', $book, '2026-09'))->toMatchArray(['reported' => 0, 'target' => '30', 'status' => 'no-data']);
    });

    it('gives way to a figure that somebody has set, and then all are gathered as set ones are', function (): void {
        $book = costs(['targetFormula' => 'SALES / STAFF'], rows('COST', '2026-08', ['30'], 'target'));

        expect(costOn('month', $book))->toMatchArray(['target' => '30', 'targetFrom' => 'set'])
            // July 20, August 30. Recomputed it would have been 900 ÷ 30 = 30.
            ->and(costOn('quarter', $book))->toMatchArray(['target' => '50', 'targetFrom' => 'formula'])
            ->and(costOn('month', $book, '2026-07'))->toMatchArray(['target' => '20', 'targetFrom' => 'formula']);
    });

    it('takes no share of a figure set for the year, which is the year target', function (): void {
        $book = costs(['targetFormula' => '0.05 * SALES'], [['kpi' => 'COST', 'unit' => 'ORG', 'period' => 'FY2026', 'target' => '200']]);
        $found = assessed($book)['assessments']['COST ORG'];

        expect($found['spans']['month']['target'])->toBe('25')->and($found['projection']['yearTarget'])->toBe('200');
    });

    it('makes the year target of the whole year where every period has a value', function (array $sales, ?string $yearTarget): void {
        $book = costs(['targetFormula' => '0.05 * target(SALES)'], rows('SALES', '2026-04', $sales, 'target'));

        expect(assessed($book)['assessments']['COST ORG']['projection']['yearTarget'])->toBe($yearTarget);
    })->with([
        'all twelve: 5 % of 1,200' => [array_fill(0, 12, '100'), '60'],
        'one is missing' => [[...array_fill(0, 11, '100'), null], null],
    ]);

    it('adds up a year in which somebody has set one', function (): void {
        $book = costs(['targetFormula' => '0.05 * target(SALES)'], [...rows('SALES', '2026-04', array_fill(0, 12, '100'), 'target'), ...rows('COST', '2027-03', ['9'], 'target')]);

        expect(assessed($book)['assessments']['COST ORG']['projection']['yearTarget'])->toBe('64');
    });

    it('may follow a KPI that is worked out from the one it belongs to', function (): void {
        $twice = kpi('TWICE', ['kind' => 'formula', 'formula' => '2 * COST', 'accumulation' => 'recompute', 'polarity' => 'none', 'rules' => []]);

        expect(costOn('month', costs(['targetFormula' => 'TWICE / 4'], [], [], [$twice]))['target'])->toBe('13');
    });

    it('is gathered over units as set ones are', function (): void {
        $both = ['units' => [['unit' => 'ORG', 'gathered' => true], ['unit' => 'A'], ['unit' => 'B']], 'gather' => ['method' => 'sum'], 'accumulation' => 'sum', ...AIMED];
        $found = assessed(book([
            'units' => [['code' => 'ORG', 'name' => 'Organisation'], ['code' => 'A', 'name' => 'A', 'parent' => 'ORG'], ['code' => 'B', 'name' => 'B', 'parent' => 'ORG']],
            'kpis' => [kpi('SALES', [...$both, 'rules' => []]), kpi('COST', ['polarity' => 'lower', 'targetFormula' => '0.1 * SALES', ...$both])],
            'readings' => [
                ...rows('SALES', '2026-07', ['100', '200'], unit: 'A'), ...rows('SALES', '2026-07', ['300', '400'], unit: 'B'),
                ...rows('COST', '2026-07', ['10', '20'], unit: 'A'), ...rows('COST', '2026-07', ['31', '40'], unit: 'B'),
            ],
            'targets' => rows('COST', '2026-08', ['25'], 'target', 'A'),
        ]))['assessments']['COST ORG']['spans'];

        expect($found['month'])->toMatchArray(['actual' => '60', 'target' => '65', 'targetFrom' => 'formula', 'status' => 'green'])
            ->and($found['quarter'])->toMatchArray(['actual' => '101', 'target' => '105']);
    });
});

describe('a computed band', function (): void {
    $band = fn (string $low, string $high): array => ['polarity' => 'band', 'lowFormula' => $low, 'highFormula' => $high];

    it('has two formulas', function () use ($band): void {
        expect(costOn('month', costs($band('0.04 * SALES', '0.05 * SALES'))))->toMatchArray(['target' => null, 'low' => '20', 'high' => '25', 'targetFrom' => 'formula', 'variance' => '1', 'status' => 'amber'])
            ->and(costOn('yearToDate', costs($band('0.04 * SALES', '0.06 * SALES'))))->toMatchArray(['low' => '60', 'high' => '90', 'status' => 'green']);
    });

    it('is none with the low one above the high one', function () use ($band): void {
        expect(costOn('month', costs($band('0.06 * SALES', '0.05 * SALES'))))->toMatchArray(['low' => null, 'compared' => 0, 'status' => 'not-judged'])
            // In each month it is one (12.5 to 132 in August), over the year to date, 75 above 72, it is not.
            ->and(costOn('month', costs($band('SALES / STAFF', '12 + 3 * STAFF'))))->toMatchArray(['low' => '12.5', 'high' => '132'])
            ->and(costOn('yearToDate', costs($band('SALES / STAFF', '12 + 3 * STAFF'))))->toMatchArray(['reported' => 5, 'compared' => 0, 'low' => null, 'high' => null]);
    });

    it('has the year\'s band that it gives over the year', function () use ($band): void {
        $targets = rows('SALES', '2026-04', array_fill(0, 12, '100'), 'target');
        $found = assessed(costs($band('0.04 * target(SALES)', '0.2 * target(SALES)'), $targets))['assessments']['COST ORG']['projection'];

        // 77 in five months run at 184.8, and the band of the year is 48 to 240.
        expect($found)->toMatchArray(['value' => '184.8', 'status' => 'green', 'yearTarget' => null]);
    });
});

describe('targets that are tried out', function (): void {
    it('are moved by a share of their absolute value, or all the same', function (Targets $targets, string $month, string $year, string $band): void {
        $written = fn (?Goal $goal): string => $goal?->band === null ? (string) $goal?->target : "{$goal->band->low} to {$goal->band->high}";
        $periods = [month('2026-04'), month('2026-05')];

        expect($written($targets->goal(month('2026-04'))))->toBe($month)->and($written($targets->gather($periods, Accumulation::Sum)))->toBe($year)
            ->and($written($targets->ofYear(Period::financialYear(2026), $periods, Accumulation::Sum)))->toBe($year)
            ->and($written($targets->gather($periods, Accumulation::Mean)))->toBe($band);
    })->with(function (): array {
        $line = fn (string ...$figures): TargetLine => TargetLine::of(new Series(['2026-04' => $figures[0], '2026-05' => $figures[1]]));

        return [
            'up' => [new MovedTargets(SetTargets::of($line('100', '300')), Exact::of('10')), '110', '440', '220'],
            'below nothing, up is still up' => [new MovedTargets(SetTargets::of($line('-100', '-300')), Exact::of('10')), '-90', '-360', '-180'],
            'down to nothing' => [new MovedTargets(SetTargets::of($line('100', '300')), Exact::of('-100')), '0', '0', '0'],
            'a band' => [new MovedTargets(SetTargets::band($line('2', '2'), $line('3', '5')), Exact::of('50')), '3 to 4.5', '6 to 12', '3 to 6'],
            'the same' => [new SameTargets(Goal::target(Exact::of('7'), TargetFrom::Set)), '7', '14', '7'],
        ];
    });
});

describe('what is refused', function (): void {
    it('names the place and the reason', function (array $members, array $others, array $lines): void {
        expect(problems(costs($members, [], [], $others)))->toBe($lines);
    })->with([
        'prior() outside of targets' => [['kind' => 'formula', 'formula' => 'prior(SALES)'], [], ['/kpis/2/formula formula prior() stands in formulas of targets only. (character 1)', ...array_map(fn (int $at): string => "/readings/{$at}/actual not-allowed A formula KPI is worked out, not entered.", range(10, 14))]],
        'no KPI' => [['targetFormula' => '5'], [], ['/kpis/2/targetFormula formula The formula names no KPI.']],
        'unknown KPI' => [['targetFormula' => 'prior(ELSE)'], [], ["/kpis/2/targetFormula unknown-kpi There is no KPI 'ELSE'."]],
        'arithmetic inside' => [['targetFormula' => 'prior(2 * SALES)'], [], ['/kpis/2/targetFormula formula prior() takes one KPI code. (character 1)']],
        'two for one target' => [['lowFormula' => 'SALES'], [], ['/kpis/2/lowFormula not-allowed Only a band has this.']],
        'one for a band' => [['polarity' => 'band', 'lowFormula' => 'SALES'], [], ['/kpis/2 missing-member A band needs the formulas of both its targets.']],
        'a target in a band' => [['polarity' => 'band', 'targetFormula' => 'SALES'], [], ['/kpis/2/targetFormula not-allowed A band has a low and a high target, each with its formula.']],
        'the target of a band' => [['targetFormula' => 'target(PRES)'], [kpi('PRES', ['polarity' => 'band', 'rules' => []])], ["/kpis/3/targetFormula operand 'PRES' aims at a band and has no single target."]],
        'itself' => [['targetFormula' => '0.9 * target(COST)'], [], ['/kpis/2/targetFormula cycle A target cannot lead back to itself: COST > COST.']],
        'a circle' => [['targetFormula' => 'target(ONE)'], [kpi('ONE', ['targetFormula' => '2 * target(TWO)']), kpi('TWO', ['targetFormula' => 'min(SALES, target(COST))'])], ['/kpis/2/targetFormula cycle A target cannot lead back to itself: ONE > TWO > COST > ONE.']],
    ]);

    it('is no circle where a target follows the figures of another whose target follows its own', function (): void {
        expect(problems(costs(['targetFormula' => '2 * ONE'], [], [], [kpi('ONE', ['targetFormula' => '3 * COST'])])))->toBe([]);
    });
});
