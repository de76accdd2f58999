/** A surface that a course is drawn on, in pixels: where a period stands, and how high a value. */
export interface Plane {
    /** the middle of a period; halves are its edges */
    x(index: number): number;
    y(value: number): number;
}

/** What a plane shows from its floor to its top. */
interface Heights {
    low: number;
    high: number;
    top: number;
    floor: number;
}

const rise = ({ low, high, top, floor }: Heights, value: number): number =>
    floor - ((value - low) / (high - low || 1)) * (floor - top);

/** Periods as columns beside each other, from the left. */
export const columned = (of: Heights & { left: number; column: number }): Plane => ({
    x: (index) => of.left + (index + 0.5) * of.column,
    y: (value) => rise(of, value),
});

/** So many periods from edge to edge: the first and the last stand on the edges. */
export const spanned = (of: Heights & { left: number; right: number; count: number }): Plane => ({
    x: (index) => of.left + (index * (of.right - of.left)) / Math.max(1, of.count - 1),
    y: (value) => rise(of, value),
});
