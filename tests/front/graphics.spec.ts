import { loneliest, periodLabels, spread } from '@/graphics/labels';
import { course, runs, steps, stretches } from '@/graphics/lines';
import { columned, spanned } from '@/graphics/plane';
import { rounded, ticks } from '@/graphics/scale';
import { colourAt, LIMITS, mark, within } from '@/graphics/course';
import { zonesBetween, type Zones } from '@/graphics/zones';
import { describe, expect, test } from 'vitest';

/* What charts, course strips and wakes draw, before it is drawn. */

const limit = (green: string, amber: string, higherIsBetter: boolean): Zones => ({ green, amber, greenLow: null, amberLow: null, higherIsBetter }); // prettier-ignore
const BAND = { ...limit('20', '24', false), greenLow: '10', amberLow: '6' };

describe('the colours between two values', () => {
    for (const [name, zones, low, high, found] of [
        ['higher is better', limit('90', '80', true), 60, 100, 'red 60-80, amber 80-90, green 90-100'],
        ['lower is better', limit('5', '8', false), 0, 10, 'green 0-5, amber 5-8, red 8-10'],
        ['a band', BAND, 0, 30, 'red 0-6, amber 6-10, green 10-20, amber 20-24, red 24-30'],
        ['all of it off course', limit('90', '80', true), 60, 75, 'red 60-75'],
        ['all of it on course', BAND, 12, 18, 'green 12-18'],
        ['no amber between', limit('0', '0', false), -1, 2, 'green -1-0, red 0-2'],
        ['negative limits', limit('-2', '-5', true), -8, 0, 'red -8--5, amber -5--2, green -2-0'],
        ['not judged', null, 0, 10, ''],
    ] as [string, Zones | null, number, number, string][]) {
        test(name, () =>
            expect(zonesBetween(zones, low, high).map(({ status, from, to }) => `${status} ${from}-${to}`).join(', ')).toBe(found)); // prettier-ignore
    }
});

describe('a course strip', () => {
    test.each([
        ['the limit of green', 0, 47.09, false],
        ['the limit of amber', 1, 29.453, false],
        ['the best that is drawn', -3, 100, false],
        ['the worst that is drawn', 2.67, 0, false],
        ['better than that', -3.001, 100, true],
        ['worse than that', 40, 0, true],
        ['between the limits', 0.5, 38.272, false],
    ])('draws %s', (_, place, at, beyond) => {
        expect(mark(place)?.at).toBeCloseTo(at, 2);
        expect(mark(place)?.beyond).toBe(beyond);
    });

    test('draws nothing where there is nothing, and what is only counted between its ends', () => {
        expect([mark(null), mark(undefined), within(null)]).toEqual([null, null, null]);
        expect(within(0.25)).toEqual({ at: 25, beyond: false });
    });

    test('better is always further right, and the parts have the colours of the limits', () => {
        const places = [3, 2, 1.0000001, 1, 0.5, 1e-12, 0, -1, -2.9];
        const drawn = places.map((place) => mark(place)?.at ?? NaN);
        expect([...drawn].sort((one, other) => one - other)).toEqual(drawn);
        expect(places.map(colourAt)).toEqual([
            'red',
            'red',
            'red',
            'amber',
            'amber',
            'amber',
            'green',
            'green',
            'green',
        ]);
        expect(LIMITS.amber).toBeLessThan(LIMITS.green);
    });
});

describe('a line', () => {
    const plane = spanned({ left: 0, right: 40, top: 0, floor: 10, low: 0, high: 10, count: 5 });

    test('breaks at its gaps; a figure alone is a point', () => {
        expect(course(plane, [1, null, 2, 3, null])).toEqual({ lines: ['20.0,8.0 30.0,7.0'], alone: [{ x: 0, y: 9 }] });
        expect(course(plane, [null, null])).toEqual({ lines: [], alone: [] });
    });

    test('of what never changes is level, and of one period alone stands at the left', () => {
        const level = spanned({ left: 2, right: 8, top: 0, floor: 10, low: 5, high: 5, count: 1 });
        expect([level.x(0), level.y(5)]).toEqual([2, 10]);
    });

    test('of targets goes in steps, from edge to edge of each period', () => {
        const columns = columned({ left: 10, column: 4, top: 0, floor: 10, low: 0, high: 10 });
        expect(steps(columns, [2, 4, null, 4])).toEqual(['10.0,8.0 14.0,8.0 14.0,6.0 18.0,6.0', '22.0,6.0 26.0,6.0']);
    });

    test('has its name where it is alone, on the side with room', () => {
        expect(loneliest(plane, [5, 5, 9, 5, 5], [[5, 5, 2, 5, 5]], 4)).toEqual({ at: 2, value: 9, isAbove: true });
        expect(loneliest(plane, [5, 5, 1, 5, 5], [[5, 5, 8, 5, 5]], 4)).toEqual({ at: 2, value: 1, isAbove: false });
        // What is still to come does not count, nor does the first period, whose name would be cut off.
        expect(loneliest(plane, [9, 5, null, 9], [[1, 5, 5, 1]], 2)).toMatchObject({ at: 1 });
        expect(loneliest(plane, [null, null], [], 1)).toBeNull();
    });
});

describe('labels under a chart', () => {
    const months = ['2025-11', '2025-12', '2026-01', '2026-02', '2026-03', '2026-04'];
    for (const [name, periods, at, column, texts] of [
        ['all where there is room', months, 5, 40, ['Nov 2025', 'Dec', 'Jan 2026', 'Feb', 'Mar', 'Apr']],
        ['every other one, that looked at always', months, 4, 20, ['Nov 2025', '', 'Jan 2026', '', 'Mar', '']],
        ['every third', months, 1, 12, [' 2025', 'Dec', ' 2026', '', 'Mar', '']],
        ['evenly too where none of them is looked at', months, -1, 20, [' 2025', 'Dec', ' 2026', 'Feb', '', 'Apr']],
        ['weeks', ['2025-W52', '2026-W01'], 1, 40, ['W52 2025', 'W01 2026']],
        ['quarters and years', ['FY2025-Q4', 'FY2026-Q1', 'FY2026'], 1, 40, ['Q4 2025', 'Q1 2026', '2026']],
    ] as [string, string[], number, number, string[]][]) {
        test(name, () =>
            expect(periodLabels(periods, at, column).map(({ text, year }) => (year ? `${text} ${year}` : text))).toEqual(texts)); // prettier-ignore
    }
});

describe('a chart', () => {
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
