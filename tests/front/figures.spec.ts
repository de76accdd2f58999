import { capital, counted, useNumbers } from '@/composables/useNumbers';
import { periodLabel, periodWords, shortPeriodWords, step } from '@/composables/usePeriods';
import { rounded, runs, spread, stretches, ticks } from '@/pages/kpi/chart';
import { expect, test } from '@playwright/test';

/* Figures and periods as they are read, and what a chart makes of them. */

const shown = (digits: string, suffix: '' | 'k' | 'm' | 'bn' = '') => ({ exact: digits, digits, suffix });

test.describe('a figure', () => {
    const { figure, signed, withMeasure, setApart, percent, fixed, unitOf } = useNumbers();

    for (const [text, is] of [
        [figure(shown('1234567.80')), '1,234,567.80'],
        [figure(shown('-0.5')), '−0.5'],
        [figure(shown('-1.2', 'm'), '£'), '−£1.2m'],
        [figure(shown('93.0'), '%'), '93.0'],
        // More digits than a float holds.
        [figure(shown('12345678901234567890.1')), '12,345,678,901,234,567,890.1'],
        [signed(shown('3')), '+3'],
        [signed(shown('0.0')), '0.0'],
        [signed(shown('269.50', 'k'), '£'), '+£269.50k'],
        [percent('-4.1'), '−4.1 %'],
        [withMeasure('−1,000', '£'), '−£1,000'],
        [withMeasure('3.5', 'Ml/d'), '3.5 Ml/d'],
        [withMeasure('3.5', ''), '3.5'],
        [fixed(-0.0001, 2), '0.00'],
        [setApart('1234567.8912'), '1,234,567.8912'],
        [setApart('about 5'), 'about 5'],
        [unitOf('£'), ''],
        [unitOf('%'), '%'],
        [counted(3), 'three'],
        [counted(12), '12'],
        [capital('nine'), 'Nine'],
    ]) {
        test(`is written ${is}`, () => expect(text).toBe(is));
    }
});

test.describe('a period', () => {
    for (const [from, months, to] of [
        ['2026-08', 1, '2026-09'],
        ['2026-12', 1, '2027-01'],
        ['2026-01', -1, '2025-12'],
        ['2026-08', -24, '2024-08'],
    ] as [string, number, string][]) {
        test(`${months} from ${from} is ${to}`, () => expect(step(from, months)).toBe(to));
    }
    for (const [period, words, short, label] of [
        ['2026-08', 'August 2026', 'August', 'Aug 2026'],
        ['2026-09', 'September 2026', 'September', 'Sep 2026'],
        ['2026-W34', 'week 34 of 2026', 'week 34', 'week 34 of 2026'],
        ['FY2026-Q2', 'quarter 2 of FY2026', 'quarter 2', 'quarter 2 of FY2026'],
        ['FY2026', 'FY2026', 'FY2026', 'FY2026'],
    ] as [string, string, string, string][]) {
        test(`${period} is said`, () =>
            expect([periodWords(period), shortPeriodWords(period), periodLabel(period)]).toEqual([
                words,
                short,
                label,
            ]));
    }
});

test.describe('a chart', () => {
    for (const [low, high, steps] of [
        [0, 10, [0, 2, 4, 6, 8, 10]],
        [54.2, 66.9, [50, 55, 60, 65, 70]],
        [-3, 1, [-3, -2, -1, 0, 1]],
        [0.00001, 0.0000123, [0.00001, 0.0000105, 0.000011, 0.0000115, 0.000012, 0.0000125]],
        [5, 5, [5, 6]],
        [0, 0, [0, 0.2]],
    ] as [number, number, number[]][]) {
        test(`has round steps from ${low} to ${high}`, () => expect(ticks(low, high)).toEqual(steps));
    }

    test('has steps that hold the whole range and grow evenly, whatever the range', () => {
        let seed = 11;
        const next = (): number => (seed = (seed * 48271) % 2147483647) / 2147483647;
        for (let time = 0; time < 300; time++) {
            const low = (next() - 0.5) * 10 ** Math.round(next() * 12 - 4);
            const high = low + next() * 10 ** Math.round(next() * 12 - 4);
            const steps = ticks(low, high);
            const [first = NaN, second = NaN] = steps;
            const size = second - first;
            // Twelve digits are kept of a step.
            const slack = Math.max(size * 1e-6, Math.abs(low) * 1e-11, Math.abs(high) * 1e-11);
            expect(first <= low + slack && (steps.at(-1) ?? NaN) >= high - slack).toBe(true);
            steps.forEach((each, at) => expect(Math.abs(each - first - at * size)).toBeLessThanOrEqual(8 * slack));
            expect(steps.length).toBeLessThanOrEqual(8);
        }
    });

    test('breaks a line at its gaps', () =>
        expect(stretches([1, null, null, 2, 3]).map((run) => run.map(({ at }) => at))).toEqual([[0], [3, 4]]));

    test('draws what stays the same in one piece', () =>
        expect(runs(['a', 'a', 'b', 'a'], (one, other) => one === other)).toEqual([
            { from: 0, to: 1, item: 'a' },
            { from: 2, to: 2, item: 'b' },
            { from: 3, to: 3, item: 'a' },
        ]));

    for (const [at, apart] of [
        [[10, 50], [10, 50]], // prettier-ignore
        [[50, 52], [50, 64]], // prettier-ignore
        [[2, 1, 3], [10, 24, 38]], // prettier-ignore
        [[99, 98], [86, 100]], // prettier-ignore
    ] as [number[], number[]][]) {
        test(`moves labels at ${at.join(', ')} to ${apart.join(', ')}`, () =>
            expect(spread(at.map((y) => ({ y })), 14, 10, 100).map(({ y }) => y)).toEqual(apart)); // prettier-ignore
    }

    test('writes nothing without a sign', () => expect(rounded(-0.001, 1)).toBe('0.0'));
});
