import { appended, changed, copied, dropped, freshId, moved, newPiece, type Band } from '@/pages/briefings/draft';
import { describe, expect, test } from 'vitest';

/* How the pieces of a page are moved, widened and copied: bands of up to four, together at most twelve twelfths. */

const page = (...bands: string[]): Band[] =>
    bands.map((band) =>
        band.split(' ').map((each) => {
            const [id, width] = each.split(':');
            return newPiece(id ?? '', 'figure', Number(width ?? 3));
        }),
    );
const told = (bands: readonly Band[]): string[] =>
    bands.map((band) => band.map(({ id, width }) => `${id}:${width}`).join(' '));

describe('moving', () => {
    for (const [name, way, from, to] of [
        ['to the left in its band', 'left', ['a:3 b:3'], ['b:3 a:3']],
        ['not past the end of its band', 'right', ['a:3 b:3'], ['a:3 b:3']],
        ['out of its band, to one of its own above', 'up', ['a:3 b:3'], ['b:3', 'a:3']],
        ['a band of its own into the one above', 'up', ['a:6', 'b:6'], ['a:6 b:6']],
        ['past one in which there is no room', 'up', ['a:8', 'b:6'], ['b:6', 'a:8']],
        ['past a piece that fills the page', 'up', ['a:12', 'b:6'], ['b:6', 'a:12']],
        ['past a band that is full', 'up', ['a:3 c:3 d:3 e:3', 'b:6'], ['b:6', 'a:3 c:3 d:3 e:3']],
        ['not past the top', 'up', ['b:6', 'a:6'], ['b:6', 'a:6']],
    ] as [string, 'left' | 'right' | 'up', string[], string[]][]) {
        test(name, () => expect(told(moved(page(...from), 'b', way))).toEqual(to));
    }
});

test('a piece is dropped beside another, or between bands', () => {
    const from = page('a:6 b:6', 'c:12');
    expect(told(dropped(from, 'c', { beside: 'a', after: true }))).toEqual(['a:4 c:4 b:4']);
    expect(told(dropped(from, 'b', { band: 2 }))).toEqual(['a:6', 'c:12', 'b:6']);
    expect(told(dropped(from, 'a', { beside: 'a', after: true }))).toEqual(told(from));
});

test('what is set keeps its width, and the others make room', () => {
    expect(told(changed(page('a:6 b:6'), 'a', { width: 8 }))).toEqual(['a:8 b:4']);
    expect(told(changed(page('a:6 b:3 c:3'), 'a', { width: 12 }))).toEqual(['a:8 b:2 c:2']);
});

test('a copy stands beside its piece, or below where there is no room', () => {
    expect(told(copied(page('a:3'), 'a').bands)).toEqual(['a:3 p2:3']);
    expect(told(copied(page('a:12'), 'a').bands)).toEqual(['a:12', 'p2:12']);
    expect(freshId(page('p1', 'p2', 'p4'))).toBe('p5');
});

test('the figures that weigh least go into an appendix, the later one of equal weight first', () => {
    const bands = appended(
        page('a b c d'),
        2,
        ({ kind }) => kind === 'figure',
        new Map([['a', 1], ['b', 3], ['c', 1], ['d', 2]]), // prettier-ignore
    );
    expect(told(bands).slice(0, 1)).toEqual(['b:3 d:3']);
    expect(bands[1]?.[0]).toMatchObject({ kind: 'text', title: 'Appendix' });
    expect(told(bands).slice(2)).toEqual(['a:3 c:3']);
});
