/** A dot for each case, standing on those that have nearly its value. */
export interface Dot {
    x: number;
    y: number;
    value: number;
}

/**
 * Dots over a scale: columns as wide as a dot, filled from the floor up. Where a column is higher than there is room,
 * its dots move closer together, so that none is left out.
 */
export function stacked(values: readonly number[], x: (value: number) => number, size: number, room: number): Dot[] {
    const columns = new Map<number, number[]>();
    for (const value of values) {
        const column = Math.round(x(value) / size);
        const held = columns.get(column);
        if (held === undefined) {
            columns.set(column, [value]);
        } else {
            held.push(value);
        }
    }
    return [...columns].flatMap(([column, held]) => {
        const step = Math.min(size, room / Math.max(1, held.length));
        return held.map((value, at) => ({ x: column * size, y: at * step + size / 2, value }));
    });
}
