import { maskedName, unitsOfKind } from '@/composables/unitKinds';
import { along, cut, dots, findIn, nearest, ordered, trackOf } from '@/graphics/peers';
import { describe, expect, test } from 'vitest';

/* What many like units beside each other are drawn and found by. */

describe('the scale that the cells of a KPI share', () => {
    for (const [name, values, low, high, isBar] of [
        ['from zero where the least is far from the most', [2, 5, 8], 0, 8, true],
        ['points where a bar would say nothing', [94, 100, 132], 91.72, 134.28, false],
        ['points on both sides of zero', [-4, 6], -4.6, 6.6, false],
        ['all equal', [5, 5], 4.7, 5.3, false],
        ['nothing but zero', [0, 0], -0.06, 0.06, false],
    ] as [string, number[], number, number, boolean][]) {
        test(name, () => {
            const track = trackOf(values);
            expect([track.low, track.high].map((end) => Number(end.toFixed(6)))).toEqual([low, high]);
            expect(track.isBar).toBe(isBar);
        });
    }

    test('a value beyond stands at the end', () => {
        expect([-1, 0, 4, 8, 9].map((value) => along({ low: 0, high: 8, isBar: true }, value))).toEqual([0, 0, 0.5, 1, 1]); // prettier-ignore
    });
});

test('names are found by a part, with anything between, whatever their accents', () => {
    const found = (name: string, typed: string) => findIn(name, typed)?.join('-') ?? null;
    expect(found('Fenwick', 'WICK')).toBe('3-7');
    expect(found('Little Marl', 'l*m')).toBe('0-8');
    expect(found('Crème', 'creme')).toBe('0-5');
    expect(found('Works (north)', 'works (')).toBe('0-7');
    expect(found('Fenwick', 'x')).toBeNull();
    expect(found('Fenwick', '  ')).toBeNull();
    expect(found('Fenwick', '*')).toBe('0-0');
});

test('places are ordered by their values, equal ones as they were, those without one last', () => {
    expect(ordered([3, null, 1, 3])).toEqual([2, 0, 3, 1]);
    expect(ordered([3, null, 1, 3], true)).toEqual([0, 3, 2, 1]);
});

test('a name that is too long for its place is cut', () => {
    expect([cut('Fenwick', 7), cut('Fenwick', 6), cut('Old Quay', 5)]).toEqual(['Fenwick', 'Fenwi…', 'Old…']);
});

test('the nearest point is found where one is near enough', () => {
    const points: ([number, number] | null)[] = [[0, 0], null, [10, 0]];
    expect([nearest(points, 8, 1, 20), nearest(points, 4, 0, 20), nearest(points, 100, 0, 20)]).toEqual([2, 0, -1]);
    expect(dots([[1, 2.345]])).toBe('M1.0 2.3h0');
});

test('units are called by the plural of their kind, or by their letters', () => {
    expect(['zone', 'works', 'branch', 'factory', 'meter model', ''].map(unitsOfKind)).toEqual(['zones', 'works', 'branches', 'factories', 'meter models', 'units']); // prettier-ignore
    expect(maskedName({ code: 'Z-1', name: 'One', kind: 'zone', parent: null, letter: 'AB' })).toBe('Zone AB');
});
