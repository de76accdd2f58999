import type { Plane } from './plane';

/** A value and the place of its period. */
export interface Spot {
    at: number;
    value: number;
}

/** Neighbours that have the same in common, as runs from one index to another. */
export function runs<T>(
    items: readonly T[],
    same: (one: T, other: T) => boolean,
): { from: number; to: number; item: T }[] {
    const found: { from: number; to: number; item: T }[] = [];
    items.forEach((item, index) => {
        const last = found.at(-1);
        if (last !== undefined && same(last.item, item)) {
            last.to = index;
        } else {
            found.push({ from: index, to: index, item });
        }
    });
    return found;
}

/** Unbroken stretches of a line; a gap ends one. */
export function stretches(values: readonly (number | null)[]): Spot[][] {
    const found: Spot[][] = [[]];
    values.forEach((value, at) => (value === null ? found.push([]) : found.at(-1)?.push({ at, value })));
    return found.filter((each) => each.length > 0);
}

/** A line through the middles of periods. */
export const through = (on: Plane, run: readonly Spot[]): string =>
    run.map(({ at, value }) => `${on.x(at).toFixed(1)},${on.y(value).toFixed(1)}`).join(' ');

/** A line of figures: its unbroken stretches, and the figures alone between gaps, which would be no line at all. */
export function course(on: Plane, values: readonly (number | null)[]) {
    const found = stretches(values);
    return {
        lines: found.filter((run) => run.length > 1).map((run) => through(on, run)),
        alone: found
            .filter((run) => run.length === 1)
            .flatMap((run) => run.map(({ at, value }) => ({ x: on.x(at), y: on.y(value) }))),
    };
}

/** What holds for the whole of a period, as a target does: steps, not a slope. */
export const steps = (on: Plane, values: readonly (number | null)[]): string[] =>
    stretches(values).map((run) =>
        run
            .flatMap(({ at, value }) => [at - 0.5, at + 0.5].map((edge) => ({ at: edge, value })))
            .map((corner) => through(on, [corner]))
            .join(' '),
    );
