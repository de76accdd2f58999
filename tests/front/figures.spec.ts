import { capital, counted, useNumbers } from '@/composables/useNumbers';
import { periodLabel, periodWords, shortPeriodWords, step } from '@/composables/usePeriods';
import { describe, expect, test } from 'vitest';

/* Figures and periods as they are read. */

const shown = (digits: string, suffix: '' | 'k' | 'm' | 'bn' = '') => ({ exact: digits, digits, suffix });

describe('a figure', () => {
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

describe('a period', () => {
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
